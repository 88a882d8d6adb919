import {
  IN_QUARANTINE,
  WITHOUT_TUB,
  type AnimalView,
  type LearnedView,
  type Page,
  type RackSummary,
  type RoomView,
  type RoundView,
} from '@karyotome/contract';
import { simulateRoom, type HeatFault } from '@karyotome/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { keeperOf, meal, refusedFields, startWithRacks } from './room-of-racks.ts';
import { ago, TODAY } from './days.ts';
import { type TestApp, type TestClient } from './test-app.ts';
import { allOf, racksOf } from './wholes.ts';

let app: TestApp;
let owner: TestClient;
let tubs: string[];
const { created, read, record, animal, today, version } = keeperOf(() => owner);

beforeAll(async () => {
  ({ app, tubs } = await startWithRacks());
  owner = app.owner;
});
afterAll(() => app.close());

describe('moving', () => {
  test('two change places in one act, and it is taken back in one', async () => {
    const [a, b] = [await animal('M-1', tubs[4]!), await animal('M-2', tubs[5]!)];
    const tubOf = async (id: string) => (await read<AnimalView>(`/animals/${id}`)).tub?.tubId;
    const moves = [
      { animalId: a, toTubId: tubs[5] },
      { animalId: b, toTubId: tubs[4] },
    ];
    const response = await owner.post('/moves', { moves, reason: 'Changed places', on: TODAY });
    expect(response.status).toBe(201);
    expect([await tubOf(a), await tubOf(b)]).toEqual([tubs[5], tubs[4]]);
    const { ids } = response.body as { ids: string[] };
    expect((await owner.post('/records/void', { ids })).status).toBe(204);
    expect([await tubOf(a), await tubOf(b)]).toEqual([tubs[4], tubs[5]]);
    const wrong = { moves: [moves[0], { animalId: b, toTubId: randomUUID() }], reason: 'x', on: TODAY };
    expect(refusedFields(await owner.post('/moves', wrong))).toEqual(['moves.1']);
    expect(await tubOf(a)).toBe(tubs[4]);
  });

  test('what became of moves is counted', async () => {
    const id = await animal('M-3', null, 320);
    await record(id, 'move', ago(60), { toTubId: tubs[0], reason: 'in' });
    await record(id, 'move', ago(40), { toTubId: tubs[6], reason: 'up' });
    await record(id, 'feeding', ago(31), meal);
    const { kinds, heavier } = await read<LearnedView>('/moves/learned');
    expect(kinds).toMatchObject([{ into: 'Yearling tub', moves: 1, medianDays: 9, wentBack: 0 }]);
    expect(heavier).toBeNull();
  });

  test('a rack grows and shrinks, but not over its animals', async () => {
    const racks = await racksOf((path) => owner.get(path));
    const small = racks.find(({ name }) => name === 'Small')!;
    const change = (body: object, v: number) =>
      owner.put(`/racks/${small.id}`, body, { 'If-Match': `"${v}"` });
    const input = { room: 'R', name: 'Small', levels: 3, tubsPerLevel: 3 };
    expect((await change(input, small.version)).status).toBe(200);
    expect((await change(input, small.version)).status).toBe(412);
    const now = (await racksOf((path) => owner.get(path))).find(({ name }) => name === 'Small')!;
    expect(now.tubs).toHaveLength(9);
    const response = await change({ ...input, levels: 1 }, now.version);
    expect(refusedFields(response)).toEqual(['levels']);
    expect(JSON.stringify(response.body)).toContain('M-1 (2-2)');
    expect((await change({ ...input, levels: 2 }, now.version)).status).toBe(200);
  });
});

describe('heat', () => {
  test('a zone is checked at the surface; what is wrong is said, also on Today', async () => {
    const [rack] = await racksOf((path) => owner.get(path));
    const input = {
      rackId: rack!.id,
      name: 'Mat',
      warmC: 32.8,
      coolC: 27.8,
      thermostat: true,
      everyDays: 30,
    };
    const zone = await created('/heat-zones', input);
    const lines = async () => (await today()).lines.filter(({ kind }) => kind === 'heat');
    expect(await lines()).toMatchObject([{ code: 'heat-check-due', zone: { name: 'Mat' } }]);
    const check = { on: TODAY, warmC: 38, coolC: 27, probeFixed: false };
    const made = await owner.post(`/heat-zones/${zone}/checks`, check);
    expect((made.body as { faults: HeatFault[] }).faults.map(({ code }) => code)).toEqual([
      'probe-loose',
      'burning-surface',
    ]);
    expect(await lines()).toMatchObject([
      { code: 'heat-fault', facts: { faults: [{ code: 'probe-loose' }, {}] } },
    ]);
    await owner.post(`/surface-checks/${(made.body as { id: string }).id}/void`, { reason: 'Undone' });
    await created(`/heat-zones/${zone}/checks`, { ...check, warmC: 33, probeFixed: true });
    expect(await lines()).toEqual([]);
    const wrong = { ...input, coolC: 40 };
    expect(refusedFields(await owner.post('/heat-zones', wrong))).toEqual(['coolC']);
    expect(refusedFields(await owner.post('/heat-zones', { ...input, rackId: randomUUID() }))).toEqual([
      'rackId',
    ]);
    expect(
      (await owner.put(`/heat-zones/${zone}`, { ...input, name: 'Mat 1' }, { 'If-Match': '"1"' })).status,
    ).toBe(200);
    expect((await owner.post(`/heat-zones/${zone}/delete`, { reason: 'x' })).status).toBe(201);
  });
});

describe('growth and concern', () => {
  test('a loss shows on Today and in the round, and goes with the next good weight', async () => {
    const id = await animal('G-1', null, 200);
    await record(id, 'weight', ago(1), { massG: 150 });
    const concern = async () =>
      (await today()).lines.filter((line) => line.kind === 'concern' && line.animal?.id === id);
    expect((await concern())[0]).toMatchObject({ code: 'below-own-best', facts: { loss: 0.25, bestG: 200 } });
    const { care } = await read<AnimalView>(`/animals/${id}`);
    expect(care.growth!.outliers).toHaveLength(1);
    expect(care.growth!.band.length).toBeGreaterThan(10);
    await record(id, 'weight', TODAY, { massG: 205 });
    expect((await concern()).filter(({ code }) => code === 'below-own-best')).toEqual([]);
  });
});

describe('the room', () => {
  test('a forecast rests on tubs, animals and clutches, and its hypotheses are the keeper’s', async () => {
    const { question, assumptions, rests } = await read<RoomView>('/room');
    expect(question.kinds.map(({ name, places }) => [name, places])).toEqual([
      ['Hatchling tub', 6],
      ['Yearling tub', 6],
      ['Sub-adult tub', 0],
      ['Adult tub', 0],
    ]);
    expect(rests.animals).toBe(question.animals.length);
    const forecast = simulateRoom({ ...question, runs: 200 })!;
    const total = forecast.kinds.reduce((sum, { weeks }) => sum + weeks[0]!.mean, 0);
    expect(total).toBeLessThanOrEqual(question.animals.length);
    expect(total).toBeGreaterThan(question.animals.length * 0.7);
    const change = { ...assumptions, salePace: 0.2 };
    expect((await owner.put('/room/assumptions', change, { 'If-Match': await version() })).status).toBe(200);
    expect((await read<RoomView>('/room')).question.salePace).toBe(0.2);
    const wrong = { ...change, heldBack: 3 };
    expect(
      refusedFields(await owner.put('/room/assumptions', wrong, { 'If-Match': await version() })),
    ).toEqual(['heldBack']);
  });
});

test('the racks of a room are built at once: all of them, or none', async () => {
  const { items: ladders } = await read<Page<{ id: string }>>('/ladders?limit=200');
  const rack = (name: string, stepPosition = 0) => ({
    room: 'New room',
    name,
    levels: 2,
    tubsPerLevel: 3,
    ladderId: ladders[0]!.id,
    stepPosition,
  });
  const inRoom = async (): Promise<string[]> =>
    (await allOf<RackSummary>((path) => owner.get(path), '/racks'))
      .filter(({ room }) => room === 'New room')
      .map(({ name }) => name);
  const twice = await owner.post('/racks/several', { racks: [rack('A'), rack('A')] });
  expect(twice.body).toMatchObject({ status: 409, errors: [{ field: 'name', code: 'taken' }] });
  const wrong = await owner.post('/racks/several', { racks: [rack('A'), rack('B', 11)] });
  expect(wrong.status).toBe(422);
  expect(await inRoom()).toEqual([]);
  const built = await owner.post('/racks/several', { racks: [rack('A'), rack('B', 1)] });
  expect(built.status).toBe(201);
  expect(await inRoom()).toEqual(['A', 'B']);
  expect(refusedFields(await owner.post('/racks/several', { racks: [] }))).toEqual(['racks']);
});

test('racks are walked past in the order that was chosen, and a new one comes after its room', async () => {
  const racks = async (): Promise<RackSummary[]> => allOf<RackSummary>((path) => owner.get(path), '/racks');
  const names = async (): Promise<string[]> => (await racks()).map(({ room, name }) => `${room} ${name}`);
  for (const [i, tub] of [1, 3, 7, 9].entries()) await animal(`W-${i}`, tubs[tub]!);
  const before = await racks();
  const turned = before.map(({ id }) => id).reverse();
  expect((await owner.post('/racks/order', { ids: turned })).status).toBe(201);
  expect((await racks()).map(({ id }) => id)).toEqual(turned);
  const housed = (await racks()).filter(({ animals }) => animals > 0).map(({ id }) => id);
  const round = (await read<RoundView>('/rounds')).racks.map(({ id }) => id);
  expect(round.filter((id) => id !== WITHOUT_TUB && id !== IN_QUARANTINE)).toEqual(housed);
  const rackOf = new Map((await racks()).map(({ name }, place) => [name, place]));
  const { lines } = await today();
  const due = lines
    .filter(({ kind, animal: one }) => kind === 'meal' && one?.number.startsWith('W-'))
    .map(({ animal: one }) => rackOf.get(one!.tub!.rack)!);
  expect(new Set(due).size).toBeGreaterThan(1);
  expect(due).toEqual(due.toSorted((a, b) => a - b));
  const { ladderId } = before[0]!;
  const added = { room: 'R', name: 'Added', levels: 1, tubsPerLevel: 1, ladderId, stepPosition: 0 };
  const id = await created('/racks', added);
  const after = await names();
  expect(after.indexOf('R Added')).toBe(after.findLastIndex((name) => name.startsWith('R ')));
  // Somebody else who has not seen the new rack yet orders nothing away.
  expect((await owner.post('/racks/order', { ids: turned })).status).toBe(409);
  expect(await names()).toEqual(after);
  expect(refusedFields(await owner.post('/racks/order', { ids: [id, id] }))).toEqual(['ids.1']);
});
