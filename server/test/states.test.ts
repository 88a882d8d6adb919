import type { AnimalView } from '@karyotome/contract';
import { addDays, FEEDING_RULES, SEASON_RULES } from '@karyotome/core';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { backgroundEnded } from '../src/background.ts';
import { reading, writing, type Actor, type Work } from '../src/db/work.ts';
import { insertRecord } from '../src/domain/records/insert-record.ts';
import { statesOf, unstoredStates } from '../src/domain/states/animal-states.ts';
import { catchUp } from '../src/domain/states/catch-up.ts';
import { beginDay } from '../src/domain/states/begin-day.ts';
import { basisOf } from '../src/domain/states/day-basis.ts';
import { computeState, type StoredState } from '../src/domain/states/compute-state.ts';
import { keptRows, livingIds } from '../src/domain/states/kept-animals.queries.ts';
import { rollOver } from '../src/domain/states/roll-over.ts';
import { ago, TODAY } from './days.ts';
import { storedStates } from './stored-states.ts';
import { maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* What husbandry computes is stored until something changes that it was computed from: never longer. */

let app: TestApp;
let owner: TestClient;
let actor: Actor;
let first: string;
let second: string;

const { created } = maker(() => owner, ago);
const record = (id: string, kind: string, on: string, body: object): Promise<string> =>
  created(`/animals/${id}/records`, { kind, on, body });
const read = <T>(run: (work: Work<Actor>) => Promise<T>): Promise<T> => reading(app.database, actor, run);
const state = async (id: string): Promise<StoredState> =>
  (await read((work) => statesOf(work, [id]))).get(id)!;
/** All that is stored, once nothing is on its way any more. */
const stored = async () => {
  await read(unstoredStates);
  await backgroundEnded();
  return app.database.models.animals.sequelize!.query(
    'select animal_id, changes, computed_for from animal_states where computed_for = changes',
  );
};
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

/** Holds every stored state, and every stored task, against what is computed from the records alone. */
async function expectAllAsComputed(): Promise<void> {
  await read(unstoredStates);
  await backgroundEnded();
  const { computed, found } = await read(async (work) => {
    const basis = await basisOf(work);
    const rows = await keptRows(work, await livingIds(work), work.today);
    return { computed: rows.map((row) => computeState(row, basis)), found: await storedStates(work) };
  });
  expect(found.size).toBe(computed.length);
  for (const { id, state: facts, tasks } of computed) {
    expect(found.get(id), id).toEqual({ id, ...(JSON.parse(JSON.stringify({ facts, tasks })) as object) });
    // With its keys in the same order: what is answered from either is the same text, with the same ETag.
    expect(JSON.stringify(found.get(id)!.facts), id).toBe(JSON.stringify(facts));
  }
}

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

describe('stored states', () => {
  test('stand until a record of the animal changes, and no longer', async () => {
    expect((await state(first)).meal!.verdict).toBe('due');
    await record(first, 'feeding', TODAY, meal);
    expect((await state(first)).meal!.verdict).toBe('later');
    expect((await state(second)).meal!.verdict).toBe('due');
    await expectAllAsComputed();
  });

  test('a record that is voided, or corrected, is out of account at once', async () => {
    const id = await record(first, 'weight', TODAY, { massG: 90 });
    expect((await state(first)).concerns).not.toEqual([]);
    await owner.post(`/records/${id}/void`, { reason: 'slip' });
    expect((await state(first)).concerns).toEqual([]);
    const wrong = await record(first, 'weight', TODAY, { massG: 20.5 });
    const corrected = { kind: 'weight', on: TODAY, body: { massG: 205 }, reason: 'a digit' };
    await owner.post(`/records/${wrong}/correct`, corrected);
    expect((await state(first)).weight!.massG).toBe(205);
    await expectAllAsComputed();
  });

  test('what a transaction wrote is seen in it, and gone when it is rolled back', async () => {
    await stored();
    class Back extends Error {}
    await expect(
      writing(app.database, actor, async (work) => {
        await insertRecord(work, first, { kind: 'feeding', on: TODAY, body: meal as never });
        expect((await statesOf(work, [first])).get(first)!.meal!.verdict).toBe('later');
        throw new Back();
      }),
    ).rejects.toThrow(Back);
    expect((await state(first)).meal!.verdict).toBe('due');
    await record(first, 'weight', TODAY, { massG: 204 });
    expect(await state(first)).toMatchObject({ meal: { verdict: 'due' }, weight: { massG: 204 } });
    await expectAllAsComputed();
  });

  test('what was computed before a change is not stored over what came after it', async () => {
    await stored();
    await record(first, 'weight', TODAY, { massG: 210 });
    const before = await read(async (work) => {
      const basis = await basisOf(work);
      return (await keptRows(work, [first], work.today)).map((row) => computeState(row, basis));
    });
    await record(first, 'weight', TODAY, { massG: 220 });
    const { saveStates } = await import('../src/domain/states/states.repository.ts');
    const { statesToText } = await import('../src/domain/states/states-text.ts');
    await saveStates(app.database, actor.collectionId, TODAY, statesToText(before));
    expect((await state(first)).weight!.massG).toBe(220);
    await backgroundEnded();
    await saveStates(app.database, actor.collectionId, TODAY, statesToText(before));
    expect((await state(first)).weight!.massG).toBe(220);
    await expectAllAsComputed();
  });

  test('new rules, and a new hatch day, count at once', async () => {
    expect((await state(first)).meal!.everyDays).toBe(7);
    const version = async (): Promise<string> =>
      `"${((await owner.get('/session')).body as { collection: { version: number } }).collection.version}"`;
    const feeding = { ...FEEDING_RULES, classes: [{ belowG: null, share: 0.1, everyDays: 12 }] };
    const order = { leadDays: 14, service: 0.95 };
    const changed = await owner.put('/feeding/rules', { feeding, order }, { 'If-Match': await version() });
    expect(changed.status).toBe(200);
    expect((await state(first)).meal!.everyDays).toBe(12);
    await owner.put('/feeding/rules', { feeding: FEEDING_RULES, order }, { 'If-Match': await version() });
    await record(first, 'weight', TODAY, { massG: 240 });
    const season = await owner.put(
      '/season/rules',
      { ...SEASON_RULES, femaleFloorG: 300, olderFemaleFloorG: 300 },
      { 'If-Match': await version() },
    );
    expect(season.status).toBe(200);
    expect((await state(first)).board!.readiness.reasons.map(({ code }) => code)).toContain('under-floor');
    await owner.put('/season/rules', SEASON_RULES, { 'If-Match': await version() });
    expect((await state(first)).board).toBeNull();
    const { version: own } = (await owner.get(`/animals/${first}`)).body as AnimalView;
    await owner.patch(`/animals/${first}`, { hatchedOn: ago(200) }, { 'If-Match': `"${own}"` });
    expect((await state(first)).offCurve!.age).toBe(200);
    await expectAllAsComputed();
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
    expect(await state(first)).toMatchObject({ meal: { verdict: 'due' }, board: { group: 'together' } });
    expect((await state(male)).board).toMatchObject({
      group: 'in-season',
      use: { females: 1, withId: first },
    });
    await created(`/pairings/${pairingId}/events`, { kind: 'ovulation', on: ago(20) });
    expect(await state(first)).toMatchObject({ meal: { verdict: 'gravid' }, board: { group: 'gravid' } });
    await created('/clutches', { pairingId, laidOn: ago(1), eggs: 5, slugs: 0, incubationC: 31.4 });
    expect(await state(first)).toMatchObject({ meal: { verdict: 'due' }, board: { group: 'laid' } });
    expect((await state(male)).board!.use!.withId).toBeNull();
    await expectAllAsComputed();
  });

  test('who has left has none, unless asked for by name', async () => {
    const { version } = (await owner.get(`/animals/${first}`)).body as AnimalView;
    await stored();
    await owner.patch(`/animals/${first}`, { status: 'sold' }, { 'If-Match': `"${version}"` });
    const rows = (await stored())[0] as { animal_id: string }[];
    expect(rows.map((row) => row.animal_id)).not.toContain(first);
    expect((await state(first)).meal).not.toBeNull();
    expect((await owner.get(`/animals/${first}`)).status).toBe(200);
    await expectAllAsComputed();
  });

  test('another day is computed for itself, and this one stays', async () => {
    await stored();
    const tomorrow = addDays(TODAY, 1);
    const later = await read((work) => statesOf({ ...work, today: tomorrow }, [second]));
    expect(later.get(second)!.expected!.on).toBe(tomorrow);
    await catchUp(app.database, actor, tomorrow);
    expect((await state(second)).expected!.on).toBe(TODAY);
    await record(second, 'feeding', TODAY, meal);
    const after = await read((work) => statesOf({ ...work, today: tomorrow }, [second]));
    expect(after.get(second)!.meal!.verdict).toBe('later');
    await expectAllAsComputed();
  });

  test('the evening prepares tomorrow and removes days that are over, whatever is wrong with another collection', async () => {
    const { sequelize } = app.database;
    const farmAtWork = async (name: string): Promise<{ client: TestClient; collectionId: string }> => {
      const client = await app.newCollection(name);
      const made = await client.post('/animals', { number: 'E-1', sex: 'male', genes: 'normal' });
      expect((await client.get('/today')).status).toBe(200);
      const found = await app.database.models.animals.findByPk((made.body as { id: string }).id);
      return { client, collectionId: found!.get().collectionId };
    };
    const { client, collectionId } = await farmAtWork('Evening');
    const broken = await farmAtWork('Of no zone');
    await sequelize.query('update collections set time_zone = $2 where id = $1', {
      bind: [broken.collectionId, 'Nowhere/At_all'],
    });
    await beginDay(app.database, { collectionId }, addDays(TODAY, -1));
    await backgroundEnded();
    const days = async (): Promise<object[]> =>
      sequelize.query(
        `select day::text, count(*) filter (where computed_for = changes)::int as stored, count(*)::int as animals
           from animal_states where collection_id = $1 group by day order by day`,
        { bind: [collectionId], type: QueryTypes.SELECT },
      );
    const whole = { stored: 1, animals: 1 };
    expect(await days()).toEqual([
      { day: addDays(TODAY, -1), stored: 0, animals: 1 },
      { day: TODAY, ...whole },
    ]);
    const faults: unknown[] = [];
    const database = { ...app.database, onFault: (error: unknown) => faults.push(error) };
    await rollOver(database, 24);
    expect(await days()).toEqual([{ day: TODAY, ...whole }]);
    await rollOver(database, 0);
    expect(await days()).toEqual([
      { day: TODAY, ...whole },
      { day: addDays(TODAY, 1), ...whole },
    ]);
    expect(faults.map(String)).toEqual(Array<unknown>(2).fill(expect.stringContaining('Nowhere/At_all')));
    expect((await client.get('/today')).status).toBe(200);
  });

  test('another collection’s animals are never among them', async () => {
    const other = await app.newCollection('Elsewhere');
    const { id } = (await other.post('/animals', { number: 'X-1', sex: 'male', genes: 'normal' })).body as {
      id: string;
    };
    expect((await read((work) => statesOf(work, [id]))).size).toBe(0);
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
