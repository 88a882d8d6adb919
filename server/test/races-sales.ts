import { randomUUID } from 'node:crypto';
import type {
  LetterView,
  OfferView,
  Page,
  PublicAnimal,
  SigningKeyView,
  StatusEventView,
  TakenView,
  WishView,
} from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { verifyFile, type Statement } from '@karyotome/lineage';
import sharp from 'sharp';
import request, { type Test } from 'supertest';
import { expect } from 'vitest';
import { ago, TODAY } from './days.ts';
import { bodyOf, statuses, type Ground, type Maker, type Races } from './race-ground.ts';
import { binary } from './test-app.ts';

async function person(make: Maker): Promise<string> {
  const email = `${randomUUID()}@example.test`;
  return make.id('/persons', { name: `P ${email.slice(0, 8)}`, email, consentOn: TODAY });
}
async function published({ one }: Ground, make: Maker): Promise<{ id: string; slug: string }> {
  const id = await make.animal('female', { hatchedOn: ago(120) });
  const answer = await one.put(`/animals/${id}/publication`, {});
  expect(answer.status, JSON.stringify(answer.body)).toBe(200);
  return { id, slug: bodyOf<{ slug: string }>(answer).slug };
}
const picture = (): Promise<Buffer> =>
  sharp({ create: { width: 12, height: 9, channels: 3, background: '#777' } })
    .png()
    .toBuffer();
const packageOf = async ({ one }: Ground, id: string): Promise<Buffer> =>
  (await (one.get(`/animals/${id}/package`) as Test).buffer(true).parse(binary)).body as Buffer;

/** Of sales, statements, hand-over, the waiting list and letters. */
export const SALE_RACES: Races = {
  'one animal is sold by two to two: one sale stands, and the other is told': async ({ one, two }, make) => {
    const id = await make.animal('female');
    const buyers = [await person(make), await person(make)];
    const answers = await Promise.all(
      [one, two].map((client, i) =>
        client.post('/status-events', {
          animalIds: [id],
          kind: 'sold',
          on: TODAY,
          details: { personId: buyers[i] },
        }),
      ),
    );
    const events = bodyOf<Page<StatusEventView>>(await one.get(`/animals/${id}/status-events`)).items;
    expect(answers.map(({ status }) => status)).toContain(201);
    expect(answers.every(({ status }) => [201, 409, 422].includes(status))).toBe(true);
    expect(events.filter(({ kind }) => kind === 'sold')).toHaveLength(1);
    expect((await make.view(id)).status).toBe('sold');
  },

  'what buyers are told is changed by two from the same version: the second is told': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const { version } = bodyOf<OfferView>(await one.get(`/animals/${id}/offer`));
    const answers = await Promise.all(
      [one, two].map((client, i) =>
        client.put(`/animals/${id}/offer`, { text: `Text ${i}` }, { 'If-Match': `"${version}"` }),
      ),
    );
    expect(statuses(answers)).toEqual([200, 412]);
  },

  'an event is taken back by two: the second is told, and the status is the one before': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const answer = await one.post('/status-events', { animalIds: [id], kind: 'offered', on: TODAY });
    const [event] = bodyOf<{ ids: string[] }>(answer).ids;
    const answers = await Promise.all(
      [one, two].map((client) => client.post(`/status-events/${event}/void`, { reason: 'A slip' })),
    );
    expect(statuses(answers)).toEqual([204, 409]);
    expect((await make.view(id)).status).toBe('undecided');
  },

  'an animal is offered to the first who waits by two: one person is asked, once': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female', { status: 'for-sale' });
    await make.id('/wishes', { personId: await person(make), must: 'Pastel', joinedOn: ago(9) });
    const offer = { animalId: id, until: addDays(TODAY, 7) };
    const answers = await Promise.all([
      one.post('/waiting/offers', offer),
      two.post('/waiting/offers', offer),
    ]);
    expect(statuses(answers)).toEqual([201, 409]);
    const offers = bodyOf<Page<WishView>>(await one.get('/wishes?limit=200'))
      .items.flatMap((wish) => wish.offers)
      .filter(({ animalId }) => animalId === id);
    expect(offers).toHaveLength(1);
    const letters = bodyOf<Page<LetterView>>(await one.get('/letters?limit=200')).items;
    expect(letters.filter(({ animal }) => animal?.id === id)).toHaveLength(1);
    await one.post(
      `/wish-offers/${bodyOf<{ id: string }>(answers.find(({ status }) => status === 201)!).id}/answer`,
      {
        answer: 'accepted',
      },
    );
  },

  'a picture is removed while a statement that names it is signed: what is signed can be packed': async (
    ground,
    make,
  ) => {
    const { one, two } = ground;
    const { id, slug } = await published(ground, make);
    const added = await one.upload(`/animals/${id}/pictures`, 'image/png', await picture());
    const answers = await Promise.all([
      one.post(`/animals/${id}/statements`, {}),
      two.delete(`/pictures/${bodyOf<{ id: string }>(added).id}`),
    ]);
    for (const { status } of answers) expect([201, 200, 204, 409]).toContain(status);
    const page = bodyOf<PublicAnimal>(await ground.app.anonymous.get(`/public/${slug}`));
    const newest = page.statements[0]!.statement;
    const { body } = await ground.app.anonymous.get(`/public/${slug}/statements/${newest}`);
    const named = (body as Statement).credentialSubject.pictures ?? [];
    expect((await make.view(id)).pictures).toHaveLength(named.length);
    expect(await verifyFile(await packageOf(ground, id))).toMatchObject({ valid: true });
  },

  'the key is replaced by two: one key signs, and the chain holds': async (ground, make) => {
    const { one, two } = ground;
    const { id } = await published(ground, make);
    const answers = await Promise.all([one.post('/signing-keys', {}), two.post('/signing-keys', {})]);
    expect(statuses(answers)).toEqual([201, 201]);
    const keys = bodyOf<Page<SigningKeyView>>(await one.get('/signing-keys?limit=200')).items;
    expect(keys.filter(({ replacedAt }) => replacedAt === null)).toHaveLength(1);
    await make.id(`/animals/${id}/records`, {
      kind: 'identification',
      on: TODAY,
      body: { genes: 'Pastel Clown', sure: 'certain', by: 'Ida' },
    });
    expect((await one.post(`/animals/${id}/statements`, {})).status).toBe(201);
    expect(await verifyFile(await packageOf(ground, id))).toMatchObject({ valid: true, problems: [] });
  },

  'a package is taken in by two: the animal enters once': async (ground, make) => {
    const { id } = await published(ground, make);
    const file = await packageOf(ground, id);
    const other = await ground.app.newCollection(`Taking ${randomUUID().slice(0, 8)}`);
    const answers = await Promise.all(
      [0, 1].map(() => other.upload('/taken?as=own', 'application/zip', file)),
    );
    for (const { status } of answers) expect([201, 200, 409]).toContain(status);
    expect(answers.map(({ status }) => status)).toContain(201);
    const animals = bodyOf<Page<{ id: string }>>(await other.get('/animals?limit=200')).items;
    expect(animals.filter((animal) => animal.id === id)).toHaveLength(1);
    expect(bodyOf<Page<TakenView>>(await other.get('/taken')).items).toHaveLength(1);
  },

  'the address of a hand-over is opened by two: one gets the package': async (ground, make) => {
    const { id } = await published(ground, make);
    const { path } = bodyOf<{ path: string }>(await ground.one.post(`/animals/${id}/hand-over`));
    const answers = await Promise.all([0, 1].map(() => request(ground.app.express).post(path)));
    expect(statuses(answers)).toEqual([200, 409]);
  },

  'a person is erased while an animal is sold to them: no name stays, and the sale does': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const personId = await person(make);
    const sold = { animalIds: [id], kind: 'sold', on: TODAY, details: { personId } };
    const [sale, erased] = await Promise.all([
      one.post('/status-events', sold),
      two.delete(`/persons/${personId}`),
    ]);
    expect(erased!.status).toBe(204);
    expect([201, 422]).toContain(sale!.status);
    const events = bodyOf<Page<StatusEventView>>(await one.get(`/animals/${id}/status-events`)).items;
    expect(events.every((event) => !event.person?.name?.startsWith('P '))).toBe(true);
    expect((await make.view(id)).status).toBe(sale!.status === 201 ? 'sold' : 'undecided');
  },
};
