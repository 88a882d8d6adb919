import type {
  AnimalWaitView,
  LetterView,
  Page,
  PairingWaitView,
  SaleLine,
  WishView,
} from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { lapseOffers } from '../src/domain/waiting/offer-to-first.ts';
import { benchActsOf, version as ifVersion } from './bench-acts.ts';
import { breederOf } from './breeder.ts';
import { ago, TODAY } from './days.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* Who waits for what, in order: animals are offered to the first whom they fit, and go on to the next by themselves. */

let app: TestApp;
let owner: TestClient;
const { created, animal } = breederOf(() => owner);
const { clutchOf, identify } = benchActsOf(() => owner);
const people: Record<string, string> = {};
let young: string[];
let clutch: string;
const UNTIL = addDays(TODAY, 7);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  const damId = await animal('D-1', 'female', 'pastel het clown', 1800);
  const sireId = await animal('S-1', 'male', 'het clown', 900);
  ({ clutch, young } = await clutchOf(damId, [sireId], 3));
  await identify(young[0]!, 'pastel clown');
  await identify(young[1]!, 'pastel');
  await identify(young[2]!, 'normal');
  for (const name of ['Ada', 'Bo', 'Cy', 'Dee']) {
    const consentOn = name === 'Cy' ? null : ago(30);
    people[name] = (await created('/persons', { name, email: `${name}@example.test`, consentOn })).id;
  }
});
afterAll(() => app.close());

const waits = async (name: string, must: string, daysAgo: number, more: object = {}): Promise<string> =>
  (await created('/wishes', { personId: people[name], must, joinedOn: ago(daysAgo), ...more })).id;
const wishes = async (): Promise<WishView[]> => ((await owner.get('/wishes')).body as Page<WishView>).items;
const byAnimal = async (): Promise<AnimalWaitView[]> =>
  ((await owner.get(`/clutches/${clutch}/waiting`)).body as Page<AnimalWaitView>).items;
const offer = (animalId: string, until = UNTIL) => owner.post('/waiting/offers', { animalId, until });
const answer = (id: string, said: string) => owner.post(`/wish-offers/${id}/answer`, { answer: said });
const drafts = async (): Promise<LetterView[]> =>
  ((await owner.get('/letters')).body as Page<LetterView>).items.filter(
    ({ kind }) => kind === 'animal-offered',
  );

describe('the waiting list', () => {
  test('knows the animals that fit, with their odds, in the order of joining', async () => {
    await waits('Bo', 'Pastel het Clown', 10);
    await waits('Ada', 'Pastel', 40, { mustNot: 'Clown' });
    await waits('Cy', 'Pastel', 20, { sex: 'female' });
    await waits('Dee', 'Pied', 50);
    const list = await wishes();
    expect(list.map(({ person }) => person.name)).toEqual(['Dee', 'Ada', 'Cy', 'Bo']);
    const fits = (name: string) => list.find(({ person }) => person.name === name)!.fits;
    expect(fits('Dee')).toEqual([]);
    expect(fits('Ada')).toMatchObject([{ animalId: young[1], p: 1 }]);
    // Of two het parents, one that does not show it carries it with 2/3 (Mendel); a visual one for certain.
    expect(fits('Bo').map(({ p }) => Number(p.toFixed(4)))).toEqual([1, 0.6667]);
    // Not sexed yet: a female with one half.
    expect(fits('Cy').map(({ p }) => p)).toEqual([0.5, 0.5]);
    expect(await byAnimal()).toMatchObject([
      { animalId: young[0], count: 2, first: { name: 'Cy', p: 0.5 } },
      { animalId: young[1], count: 3, first: { name: 'Ada', p: 1 } },
      { animalId: young[2], count: 0, first: null },
    ]);
  });

  test('minds the price that somebody would pay, and the pairing', async () => {
    const id = await waits('Ada', 'Clown', 5, { priceLimit: 300, currency: 'EUR' });
    const fits = async () => (await wishes()).find((wish) => wish.id === id)!.fits.length;
    expect(await fits()).toBe(1);
    await owner.post('/prices', { currency: 'EUR', prices: [{ animalId: young[0], price: 400 }] });
    expect(await fits()).toBe(0);
    expect((await owner.delete(`/wishes/${id}`)).status).toBe(204);
  });

  test('refuses what it does not understand, by field', async () => {
    const wrong = await owner.post('/wishes', { personId: people['Ada'], must: 'Pastle', joinedOn: TODAY });
    expect(wrong.body).toMatchObject({ errors: [{ field: 'must' }] });
    const nobody = await owner.post('/wishes', { personId: young[0], must: 'Pastel', joinedOn: TODAY });
    expect(nobody.body).toMatchObject({ errors: [{ field: 'personId' }] });
    const [first] = await wishes();
    const change = { personId: people['Dee'], must: 'Pied', joinedOn: ago(50), note: 'patient' };
    expect((await owner.put(`/wishes/${first!.id}`, change, ifVersion(first!.version))).status).toBe(200);
    expect((await owner.put(`/wishes/${first!.id}`, change, ifVersion(first!.version))).status).toBe(412);
  });

  test('says what a pairing to come can be expected to give', async () => {
    const damId = await animal('D-2', 'female', 'clown', 1900);
    const sireId = await animal('S-2', 'male', 'clown pastel', 900);
    const pairing = {
      season: Number(TODAY.slice(0, 4)),
      damId,
      sires: [{ animalId: sireId, weight: 1 }],
      startedOn: ago(60),
    };
    const { id } = await created('/pairings', pairing);
    await created('/clutches', { pairingId: id, laidOn: ago(20), eggs: 5 });
    const lines = ((await owner.get('/waiting/pairings')).body as Page<PairingWaitView>).items;
    const line = lines.find((one) => one.id === id)!;
    // By hand: 4.5 young are to come of five eggs. All are Clown; half are Pastel, so Bo's fits with 1/2 and Cy's, a female,
    // with 1/4; Ada's must not be Clown.
    expect(line).toMatchObject({ name: 'D-2 × S-2', waiting: 2 });
    expect(line.young).toBeCloseTo(4.5, 9);
    expect(line.expected).toBeCloseTo(2 - 0.5 ** 4.5 - 0.75 ** 4.5, 9);
  });
});

describe('an offer', () => {
  test('goes to the first whom the animal fits, as a letter to be looked at; declined, to the next', async () => {
    const first = await offer(young[1]!);
    expect(first.status, JSON.stringify(first.body)).toBe(201);
    expect((await offer(young[1]!)).status).toBe(409);
    expect(await drafts()).toMatchObject([
      { person: { name: 'Ada' }, state: 'draft', subject: expect.stringContaining('fits') as string },
    ]);
    expect((await answer((first.body as { id: string }).id, 'declined')).status).toBe(204);
    // Cy comes next, and has not agreed to be written to: the offer stands, and no letter is drafted.
    const cy = (await wishes()).find(({ person }) => person.name === 'Cy')!;
    expect(cy.offers).toMatchObject([{ animalId: young[1], answer: null, until: UNTIL }]);
    expect(await drafts()).toHaveLength(1);
  });

  test('lapses by itself when nobody answers in time, and goes on', async () => {
    await app.database.sequelize.query(
      `update wish_offers set offered_on = '${ago(9)}', answer_until = '${ago(2)}' where answer is null`,
    );
    await lapseOffers(app.database);
    await lapseOffers(app.database);
    const list = await wishes();
    expect(list.find(({ person }) => person.name === 'Cy')!.offers[0]!.answer).toBe('lapsed');
    const bo = list.find(({ person }) => person.name === 'Bo')!;
    expect(bo.offers).toMatchObject([{ animalId: young[1], answer: null, until: addDays(TODAY, 7) }]);
    expect((await drafts()).map(({ person }) => person!.name)).toEqual(['Bo', 'Ada']);
  });

  test('that is accepted reserves the animal, and ends the waiting; said twice it is done once', async () => {
    const bo = (await wishes()).find(({ person }) => person.name === 'Bo')!;
    const answers = await Promise.all([
      answer(bo.offers[0]!.id, 'accepted'),
      answer(bo.offers[0]!.id, 'accepted'),
    ]);
    expect(answers.map(({ status }) => status)).toEqual([204, 204]);
    expect((await answer(bo.offers[0]!.id, 'declined')).status).toBe(409);
    const lines = ((await owner.get('/sales?limit=200')).body as Page<SaleLine>).items;
    expect(lines.find(({ id }) => id === young[1])).toMatchObject({
      status: 'reserved',
      event: { person: { name: 'Bo' }, details: { until: addDays(TODAY, 14) } },
    });
    expect((await wishes()).some(({ person }) => person.name === 'Bo')).toBe(false);
  });

  test('is refused where nobody waits for it, it is not to be had, or the day is over', async () => {
    expect((await offer(young[2]!)).status).toBe(409);
    expect((await offer(young[1]!)).body).toMatchObject({ errors: [{ field: 'animalId' }] });
    expect((await offer(young[0]!, ago(1))).body).toMatchObject({ errors: [{ field: 'until' }] });
  });

  test('of an erased person is nobody’s: their wish is gone', async () => {
    await owner.delete(`/persons/${people['Dee']}`);
    expect((await wishes()).some(({ must }) => must === 'Pied')).toBe(false);
  });
});
