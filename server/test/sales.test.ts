import type { DeskView, OfferView, Page, PersonView, RoomView, TodayView } from '@karyotome/contract';
import { addDays, learnPace } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { lapseReservations } from '../src/domain/sales/lapse.ts';
import { writing } from '../src/db/work.ts';
import { benchActsOf, version as ifVersion } from './bench-acts.ts';
import { breederOf } from './breeder.ts';
import { ago, TODAY } from './days.ts';
import { sellerOf } from './sale-acts.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';
import { racksOf } from './wholes.ts';

/* From undecided to sold: dated, taken back, and what follows of it. */

let app: TestApp;
let owner: TestClient;
const { created, animal } = breederOf(() => owner);
const { clutchOf } = benchActsOf(() => owner);
let buyer: string;

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  const person = { name: 'Ada Fernwood', email: 'ada@example.test', consentOn: ago(3) };
  buyer = (await created('/persons', person)).id;
});
afterAll(() => app.close());

const { young, happens, eventOf, statusOf, history, sales, lineOf } = sellerOf(() => owner);

describe('an animal on its way to a buyer', () => {
  test('is offered, reserved and sold, dated, each with its history', async () => {
    const id = await young();
    await eventOf(id, 'offered', ago(40));
    const until = addDays(TODAY, 10);
    await eventOf(id, 'reserved', ago(20), { personId: buyer, deposit: 50, currency: 'EUR', until });
    expect(await lineOf(id)).toMatchObject({
      status: 'reserved',
      event: { kind: 'reserved', person: { name: 'Ada Fernwood' }, details: { deposit: 50, until } },
    });
    await eventOf(id, 'sold', ago(2), { personId: buyer, price: 450, currency: 'EUR', how: 'collected' });
    expect(await statusOf(id)).toBe('sold');
    expect((await history(id)).map(({ kind, on }) => [kind, on])).toEqual([
      ['sold', ago(2)],
      ['reserved', ago(20)],
      ['offered', ago(40)],
    ]);
    const people = ((await owner.get('/persons')).body as Page<PersonView>).items;
    expect(people[0]).toMatchObject({
      name: 'Ada Fernwood',
      animals: [{ kind: 'sold' }, { kind: 'reserved' }],
    });
  });

  test('goes back step by step where what was done is taken back, last things first', async () => {
    const id = await young();
    const offered = await eventOf(id, 'offered', ago(40));
    const sold = await eventOf(id, 'sold', ago(2), {});
    const refused = await owner.post(`/status-events/${offered}/void`, { reason: 'Wrong one' });
    expect(refused.status).toBe(409);
    for (const [event, status] of [
      [sold, 'for-sale'],
      [offered, 'undecided'],
    ] as const) {
      expect((await owner.post(`/status-events/${event}/void`, { reason: 'Wrong one' })).status).toBe(204);
      expect(await statusOf(id)).toBe(status);
    }
    expect((await history(id)).map(({ voided }) => voided?.reason)).toEqual(['Wrong one', 'Wrong one']);
  });

  test('a sale is completed later by a correction, which keeps what was there', async () => {
    const id = await young();
    const sold = await eventOf(id, 'sold', ago(9), { personId: buyer, price: 300 });
    const details = { personId: buyer, price: 300, paidOn: ago(5), handedOverOn: ago(4), how: 'shipped' };
    const answer = await owner.post(`/status-events/${sold}/correct`, { kind: 'sold', on: ago(9), details });
    expect(answer.status).toBe(201);
    expect(await lineOf(id)).toMatchObject({
      status: 'sold',
      event: { details: { paidOn: ago(5), how: 'shipped' } },
    });
    expect(await history(id)).toHaveLength(2);
  });

  test('refuses what cannot be, by field, and does nothing of it', async () => {
    const [id, other] = [await young(), await young()];
    await eventOf(id, 'sold', ago(2), {});
    const both = await happens([other, id], 'held-back', TODAY);
    expect(both.status).toBe(409);
    expect(await statusOf(other)).toBe('undecided');
    const early = await happens([id], 'gone-back', ago(3));
    expect(early.body).toMatchObject({ errors: [{ field: 'on', code: 'order' }] });
    const before = await happens([other], 'offered', ago(121));
    expect(before.body).toMatchObject({ errors: [{ field: 'on', code: 'before-hatching' }] });
    const nobody = await happens([other], 'reserved', TODAY, { personId: other });
    expect(nobody.body).toMatchObject({ errors: [{ field: 'details.personId' }] });
    const missing = await happens([other], 'reserved', TODAY);
    expect(missing.body).toMatchObject({ errors: [{ field: 'details' }] });
    const wrong = await happens([other], 'sold', TODAY, { price: 10, currency: 'XYZ' });
    expect(wrong.body).toMatchObject({ errors: [{ field: 'details.currency' }] });
    const strange = await happens([buyer], 'offered', TODAY);
    expect(strange.body).toMatchObject({ errors: [{ field: 'animalIds.0' }] });
  });

  test('eleven are offered at once, priced down a column, and said once however often it is sent', async () => {
    const ids = await Promise.all(Array.from({ length: 11 }, young));
    const body = { animalIds: ids, kind: 'offered', on: TODAY };
    const headers = { 'Idempotency-Key': 'eleven-at-once' };
    const first = await owner.post('/status-events', body, headers);
    expect((await owner.post('/status-events', body, headers)).body).toEqual(first.body);
    expect((first.body as { ids: string[] }).ids).toHaveLength(11);
    const prices = ids.map((animalId, i) => ({ animalId, price: 100 + i }));
    expect((await owner.post('/prices', { currency: 'USD', prices })).status).toBe(204);
    const offered = (await sales('&status=for-sale')).filter(({ id }) => ids.includes(id));
    const priced = new Map(offered.map(({ id, offer }) => [id, [offer.price, offer.currency]]));
    expect(priced).toEqual(new Map(prices.map(({ animalId, price }) => [animalId, [price, 'USD']])));
  });

  test('two who sell the same animal at once: one of them is told', async () => {
    const id = await young();
    const answers = await Promise.all([
      happens([id], 'sold', TODAY, { price: 1 }),
      happens([id], 'sold', TODAY, { price: 2 }),
    ]);
    expect(answers.map(({ status }) => status).toSorted()).toEqual([201, 409]);
    expect(await history(id)).toHaveLength(1);
  });

  test('one that comes back finds its tub taken and is without one', async () => {
    const ladders = ((await owner.get('/ladders')).body as Page<{ id: string }>).items;
    const rack = {
      room: 'R',
      name: 'Sales',
      levels: 1,
      tubsPerLevel: 1,
      ladderId: ladders[0]!.id,
      stepPosition: 0,
    };
    await created('/racks', rack);
    const racks = await racksOf((path) => owner.get(path));
    const tubId = racks.find(({ name }) => name === 'Sales')!.tubs[0]!.id;
    const id = (await created('/animals', { number: 'T-1', sex: 'male', tubId })).id;
    const sold = await eventOf(id, 'sold', TODAY, {});
    await created('/animals', { number: 'T-2', sex: 'male', tubId });
    await owner.post(`/status-events/${sold}/void`, { reason: 'Not sold' });
    expect((await owner.get(`/animals/${id}`)).body).toMatchObject({ status: 'undecided', tub: null });
  });
});

describe('a reservation', () => {
  test('lapses by itself after its last day, and Today says so', async () => {
    const id = await young();
    await eventOf(id, 'reserved', ago(9), { personId: buyer, until: ago(1) });
    const still = await young();
    await eventOf(still, 'reserved', ago(9), { personId: buyer, until: TODAY });
    const { collectionId } = (await app.database.models.animals.findByPk(id))!.get();
    await writing(app.database, { collectionId }, lapseReservations);
    await writing(app.database, { collectionId }, lapseReservations);
    expect([await statusOf(id), await statusOf(still)]).toEqual(['for-sale', 'reserved']);
    expect((await history(id)).map(({ kind, author }) => [kind, author])).toEqual([
      ['lapsed', null],
      ['reserved', 'Tester'],
    ]);
    const { lines } = (await owner.get('/today')).body as TodayView;
    expect(lines.filter(({ code }) => code === 'reservation-lapsed')).toMatchObject([
      { animal: { id }, facts: { until: ago(1) } },
    ]);
  });
});

describe('what buyers are told', () => {
  test('is changed as it was read', async () => {
    const id = await young();
    expect((await owner.get(`/animals/${id}/offer`)).body).toMatchObject({
      price: null,
      currency: 'EUR',
      version: 0,
    });
    const offer = { price: 450.5, currency: 'GBP', text: 'Calm.' };
    expect((await owner.put(`/animals/${id}/offer`, offer, ifVersion(0))).status).toBe(200);
    expect((await owner.put(`/animals/${id}/offer`, offer, ifVersion(0))).status).toBe(412);
    expect((await owner.get(`/animals/${id}/offer`)).body as OfferView).toMatchObject({
      ...offer,
      version: 1,
    });
    const strange = await owner.put(`/animals/${id}/offer`, { pictureIds: [id] }, ifVersion(1));
    expect(strange.body).toMatchObject({ errors: [{ field: 'pictureIds.0' }] });
  });

  test('the rule of readiness is the collection’s own', async () => {
    const id = await young();
    expect((await lineOf(id))?.lacks ?? []).toEqual([]);
    await eventOf(id, 'held-back', TODAY);
    expect((await lineOf(id)).lacks.map(({ code }) => code)).toEqual([
      'too-few-meals',
      'never-weighed',
      'no-shed-recorded',
    ]);
    const { version } = (await owner.get('/sale-rules')).body as { version: number };
    const rules = { currency: 'EUR', mealsInRow: 0, massG: 100, wholeShed: false };
    expect((await owner.put('/sale-rules', rules, ifVersion(version))).status).toBe(200);
    expect((await lineOf(id)).lacks.map(({ code }) => code)).toEqual(['never-weighed']);
  });
});

test('a clutch lies side by side on its desk', async () => {
  const damId = await animal('D-1', 'female', 'het clown', 1800);
  const sireId = await animal('S-1', 'male', 'clown', 900);
  const { clutch: clutchId } = await clutchOf(damId, [sireId], 3);
  const desk = (await owner.get(`/clutches/${clutchId}/desk`)).body as DeskView;
  expect(desk.clutch).toMatchObject({ dam: 'D-1', sires: ['S-1'] });
  for (const { lacks, appetite } of desk.lines) {
    expect(lacks.length).toBeGreaterThan(0);
    expect(appetite).toEqual({ inARow: 0, takenEver: 0, offeredEver: 0 });
  }
});

test('the forecast of places learns its pace from the sales', async () => {
  const client = await app.newCollection('Pace');
  const room = async (): Promise<RoomView> => (await client.get('/room')).body as RoomView;
  expect((await room()).learned).toBeNull();
  for (let i = 0; i < 6; i++) {
    const body = { number: `Q-${i}`, sex: 'male', hatchedOn: ago(200) };
    const id = ((await client.post('/animals', body)).body as { id: string }).id;
    await client.post('/status-events', { animalIds: [id], kind: 'offered', on: ago(60) });
    await client.post('/status-events', { animalIds: [id], kind: 'sold', on: ago(25), details: {} });
  }
  const spell = { hatchedOn: ago(200), offeredOn: ago(60), soldOn: ago(25), endedOn: ago(25) };
  const learned = learnPace(
    Array.from({ length: 6 }, () => spell),
    TODAY,
  )!;
  expect(await room()).toMatchObject({
    learned,
    assumptions: { salePace: Number(learned.perWeek.toFixed(3)), saleAgeWeeks: 20, heldBack: 0.15 },
  });
});
