import type { AnimalView } from '@karyotome/contract';
import { addDays, FEEDING_RULES } from '@karyotome/core';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { machineToday, reading, writing, type Actor, type Work } from '../src/db/work.ts';
import { herdOf } from '../src/domain/husbandry/load-herd.ts';
import { type Herd } from '../src/domain/husbandry/herd.ts';
import { insertRecord } from '../src/domain/records/insert-record.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* What husbandry computes is kept until something changes: never longer, never for what was rolled back. */

let app: TestApp;
let owner: TestClient;
let actor: Actor;
let first: string;
let second: string;
const TODAY = machineToday();
const ago = (days: number): string => addDays(TODAY, -days);

const created = async (path: string, body: object): Promise<string> => {
  const response = await owner.post(path, body);
  expect(response.status, JSON.stringify(response.body)).toBe(201);
  return (response.body as { id: string }).id;
};
const record = (id: string, kind: string, on: string, body: object): Promise<string> =>
  created(`/animals/${id}/records`, { kind, on, body });
const within = <T>(run: (work: Work<Actor>) => Promise<T>): Promise<T> => writing(app.database, actor, run);
const herd = (also?: string): Promise<Herd> => reading(app.database, actor, (work) => herdOf(work, also));
const meal = { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true };
let turn = 0;
const animal = async (): Promise<string> => {
  turn += 1;
  const id = await created('/animals', {
    number: `H-${turn}`,
    sex: 'female',
    genes: 'pastel',
    hatchedOn: ago(300),
  });
  await record(id, 'weight', ago(30), { massG: 180 });
  await record(id, 'weight', ago(10), { massG: 200 });
  await record(id, 'feeding', ago(8), meal);
  return id;
};

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  const [membership] = await app.database.models.memberships.findAll();
  const { collectionId, accountId } = membership!.get();
  actor = { collectionId, accountId, name: 'Tester', role: 'owner' };
});
afterAll(() => app.close());
beforeEach(async () => {
  first = await animal();
  second = await animal();
});

describe('the herd', () => {
  test('what has not changed is not computed again', async () => {
    const [before, after] = [await herd(), await herd()];
    expect(after.meal(first)).toBe(before.meal(first));
    expect(after.growth(first)).toBe(before.growth(first));
    expect(after.concerns(first)).toBe(before.concerns(first));
    expect(after.tasks(first, true)).toBe(before.tasks(first, true));
  });

  test('a record changes its own animal, and no other', async () => {
    const before = await herd();
    await record(first, 'feeding', TODAY, meal);
    const after = await herd();
    expect(before.meal(first)!.verdict).toBe('due');
    expect(after.meal(first)!.verdict).toBe('later');
    expect(after.meal(second)).toBe(before.meal(second));
  });

  test('a record that is voided, or corrected, is out of account at once', async () => {
    const id = await record(first, 'weight', TODAY, { massG: 90 });
    expect((await herd()).concerns(first)).not.toEqual([]);
    await owner.post(`/records/${id}/void`, { reason: 'slip' });
    expect((await herd()).concerns(first)).toEqual([]);
    const wrong = await record(first, 'weight', TODAY, { massG: 20.5 });
    const corrected = { kind: 'weight', on: TODAY, body: { massG: 205 }, reason: 'a digit' };
    await owner.post(`/records/${wrong}/correct`, corrected);
    expect((await herd()).animal(first).history.weights.at(-1)!.massG).toBe(205);
  });

  test('what a transaction wrote is seen in it, and gone when it is rolled back', async () => {
    const before = await herd();
    class Back extends Error {}
    await expect(
      within(async (work) => {
        await insertRecord(work, first, { kind: 'feeding', on: TODAY, body: meal as never });
        expect((await herdOf(work)).meal(first)!.verdict).toBe('later');
        throw new Back();
      }),
    ).rejects.toThrow(Back);
    expect((await herd()).meal(first)).toBe(before.meal(first));
    // The count that was rolled back is given again to another record: it must not be taken for the first one.
    await record(first, 'weight', TODAY, { massG: 204 });
    const after = await herd();
    expect(after.meal(first)!.verdict).toBe('due');
    expect(after.animal(first).history.weights.at(-1)!.massG).toBe(204);
  });

  test('new rules, and a new hatch day, count at once', async () => {
    expect((await herd()).meal(first)!.everyDays).toBe(7);
    const { collection } = (await owner.get('/session')).body as { collection: { version: number } };
    const feeding = { ...FEEDING_RULES, classes: [{ belowG: null, share: 0.1, everyDays: 12 }] };
    const order = { leadDays: 14, service: 0.95 };
    const changed = await owner.put(
      '/feeding/rules',
      { feeding, order },
      { 'If-Match': `"${collection.version}"` },
    );
    expect(changed.status).toBe(200);
    expect((await herd()).meal(first)!.everyDays).toBe(12);
    const again = { feeding: FEEDING_RULES, order };
    await owner.put('/feeding/rules', again, { 'If-Match': `"${collection.version + 1}"` });
    const { version } = (await owner.get(`/animals/${first}`)).body as AnimalView;
    await owner.patch(`/animals/${first}`, { hatchedOn: ago(200) }, { 'If-Match': `"${version}"` });
    const { history } = (await herd()).animal(first);
    expect(history.hatchedOn).toBe(ago(200));
    expect((await herd()).offCurve(first)!.age).toBe(200);
  });

  test('a gravid female is passed over from her ovulation on, and eats again after her eggs', async () => {
    const male = await created('/animals', {
      number: `M-${turn}`,
      sex: 'male',
      genes: 'enchi',
      hatchedOn: ago(900),
    });
    const introduced = await owner.post('/season/introductions', { damId: first, sireId: male, on: ago(60) });
    const { pairingId } = introduced.body as { pairingId: string };
    expect((await herd()).meal(first)!.verdict).toBe('due');
    await created(`/pairings/${pairingId}/events`, { kind: 'ovulation', on: ago(20) });
    expect((await herd()).meal(first)!.verdict).toBe('gravid');
    await created('/clutches', { pairingId, laidOn: ago(1), eggs: 5, slugs: 0, incubationC: 31.4 });
    const after = await herd();
    expect(after.animal(first)).toMatchObject({ gravid: false, laidOn: [ago(1)] });
    expect(after.meal(first)!.verdict).toBe('due');
  });

  test('who has left is not in it, unless asked for by name', async () => {
    const { version } = (await owner.get(`/animals/${first}`)).body as AnimalView;
    await owner.patch(`/animals/${first}`, { status: 'sold' }, { 'If-Match': `"${version}"` });
    expect((await herd()).animals.has(first)).toBe(false);
    expect((await herd(first)).meal(first)).not.toBeNull();
    expect((await owner.get(`/animals/${first}`)).status).toBe(200);
  });

  test('another collection’s animals are never in it', async () => {
    const other = await app.newCollection('Elsewhere');
    const { id } = (await other.post('/animals', { number: 'X-1', sex: 'male', genes: 'normal' })).body as {
      id: string;
    };
    expect((await herd()).animals.has(id)).toBe(false);
    expect((await other.get(`/animals/${first}`)).status).toBe(404);
    const key = '0e2c7c52-3f0a-4a53-9a57-5ec9a33d4a10';
    const entry = { key, animalId: first, record: { kind: 'care', on: TODAY, body: { act: 'cleaned' } } };
    const answer = await other.post('/rounds/entries', { entries: [entry] });
    expect(answer.body).toMatchObject({ results: [{ status: 'refused' }] });
    // The refusal took nothing: the owner may use the very same key.
    expect((await owner.post('/rounds/entries', { entries: [entry] })).body).toMatchObject({
      results: [{ status: 'kept' }],
    });
  });
});
