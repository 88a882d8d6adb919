import type { AnimalView } from '@karyotome/contract';
import { addDays, FEEDING_RULES, SEASON_RULES } from '@karyotome/core';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { backgroundEnded } from '../src/background.ts';
import { openDatabase } from '../src/db/open.ts';
import { reading, type Actor, type Database, type Work } from '../src/db/work.ts';
import { catchUp } from '../src/domain/states/catch-up.ts';
import { computeState } from '../src/domain/states/compute-state.ts';
import { basisOf } from '../src/domain/states/day-basis.ts';
import { keptRows, livingIds } from '../src/domain/states/kept-animals.queries.ts';
import { settleStates } from '../src/domain/states/catch-up.ts';
import { storedStates } from './stored-states.ts';
import { ago, TODAY } from './days.ts';
import { racksOf } from './wholes.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/*
 * Random sequences of what keepers do, of days and of starts, and every stored state held against one computed from the
 * records alone. A second database beside the first stands for another process: it keeps nothing of what the first has read.
 */

let app: TestApp;
let other: Database;
let owner: TestClient;
let actor: Actor;
const animals: string[] = [];
let tubs: string[];
let sire: string;
const RUNS = 20;
const STEPS = 14;

const read = <T>(database: Database, day: string, run: (work: Work<Actor>) => Promise<T>): Promise<T> =>
  reading(database, actor, (work) => run({ ...work, today: day }));
const at = (i: number): string => animals[i % animals.length]!;

async function expectComputed(day: string): Promise<void> {
  await read(other, day, (work) => basisOf(work));
  await catchUp(other, actor, day);
  await backgroundEnded();
  const { computed, stored } = await read(other, day, async (work) => {
    const basis = await basisOf(work);
    const rows = await keptRows(work, await livingIds(work), day);
    return { computed: rows.map((row) => computeState(row, basis)), stored: await storedStates(work) };
  });
  expect(stored.size).toBe(computed.length);
  for (const { id, state: facts, tasks } of computed)
    expect(stored.get(id), id).toEqual({ id, ...(JSON.parse(JSON.stringify({ facts, tasks })) as object) });
}

const version = async (): Promise<Record<string, string>> => {
  const { collection } = (await owner.get('/session')).body as { collection: { version: number } };
  return { 'If-Match': `"${collection.version}"` };
};
const record = (i: number, kind: string, days: number, body: object): Promise<unknown> =>
  owner.post(`/animals/${at(i)}/records`, { kind, on: ago(days), body });

const COURSE = { what: 'drops', dose: '1 drop', orderedBy: 'Dr. Vold', everyDays: 1, timesADay: 1 };

/** What somebody does, by a number that says with which animal and how. What is refused changes nothing. */
const ACTS: readonly ((n: number) => Promise<unknown>)[] = [
  (n) => record(n, 'weight', n % 9, { massG: 300 + (n % 1500) }),
  (n) =>
    record(n, 'feeding', n % 6, { species: 'rat', size: 'small', state: 'frozen-thawed', taken: n % 3 > 0 }),
  (n) =>
    record(n, 'shed', n % 5, { stage: n % 2 ? 'blue' : 'shed', ...(n % 2 ? {} : { complete: n % 4 > 0 }) }),
  (n) => record(n, 'care', n % 4, { act: n % 2 ? 'cleaned' : 'regurgitated' }),
  (n) => record(n, 'move', 0, { toTubId: tubs[n % tubs.length], reason: 'another tub' }),
  (n) => record(n, 'own-way', 0, { everyDays: 5 + (n % 20) }),
  (n) => record(n, 'health-check', n % 6, { signs: n % 2 ? [] : ['wound'] }),
  (n) => record(n, 'loan', n % 3, { direction: n % 2 ? 'in' : 'out', partner: 'Oak', until: null }),
  (n) => record(n, 'loan-end', n % 2, {}),
  (n) => record(n, 'quarantine', n % 4, { until: n % 3 ? TODAY : null, reason: 'new' }),
  (n) => record(n, 'treatment', 0, { ...COURSE, from: ago(n % 3), doses: 1 + (n % 4) }),
  async (n) => {
    const { care } = (await owner.get(`/animals/${at(n)}`)).body as AnimalView;
    const [course] = care.health.courses;
    const body = course && { courseId: course.courseId, ordinal: course.next!.ordinal, isGiven: n % 2 > 0 };
    return body && record(n, 'dose', 0, body);
  },
  async (n) => {
    const { records } = (await owner.get(`/animals/${at(n)}`)).body as AnimalView;
    const standing = records.filter(({ voided }) => voided === null);
    const one = standing[n % Math.max(1, standing.length)];
    return one && owner.post(`/records/${one.id}/void`, { reason: 'slip' });
  },
  async (n) => {
    const { version: own } = (await owner.get(`/animals/${at(n)}`)).body as AnimalView;
    const change = n % 2 ? { hatchedOn: ago(400 + (n % 900)) } : { status: n % 4 ? 'held-back' : 'sold' };
    return owner.patch(`/animals/${at(n)}`, change, { 'If-Match': `"${own}"` });
  },
  async (n) => {
    const classes = [{ belowG: null, share: 0.08 + (n % 5) / 100, everyDays: 6 + (n % 9) }];
    const body = { feeding: { ...FEEDING_RULES, classes }, order: { leadDays: 14, service: 0.95 } };
    return owner.put('/feeding/rules', body, await version());
  },
  async (n) =>
    owner.put('/season/rules', { ...SEASON_RULES, femaleFloorG: 600 + (n % 900) }, await version()),
  (n) => owner.post('/season/introductions', { damId: at(2 * n), sireId: sire, on: ago(n % 30) }),
  async (n) => {
    const list = (await owner.get('/pairings?limit=200')).body as { items: { id: string }[] };
    const one = list.items[n % Math.max(1, list.items.length)];
    const kind = n % 2 ? 'ovulation' : 'pre-lay-shed';
    return one && owner.post(`/pairings/${one.id}/events`, { kind, on: ago(n % 20) });
  },
  // Looks of this process and of the other, of today and of tomorrow.
  () => owner.get('/today'),
  () => settleStates(other, actor),
  () => catchUp(other, actor, TODAY),
];

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  other = openDatabase(app.databaseUrl, (error) => app.faults.push(error));
  const [membership] = await app.database.models.memberships.findAll();
  const { collectionId, accountId } = membership!.get();
  actor = { collectionId, accountId, name: 'Tester', role: 'owner' };
  const [ladder] = ((await owner.get('/ladders')).body as { items: { id: string }[] }).items;
  for (const [stepPosition, name] of ['Small', 'Large'].entries())
    await owner.post('/racks', {
      room: 'R',
      name,
      levels: 1,
      tubsPerLevel: 4,
      ladderId: ladder!.id,
      stepPosition,
    });
  tubs = (await racksOf((path) => owner.get(path))).flatMap((rack) => rack.tubs.map(({ id }) => id));
  for (let i = 0; i < 6; i++) {
    const sex = i % 2 ? 'male' : 'female';
    const body = { number: `P-${i}`, sex, genes: 'pastel', hatchedOn: ago(1200), massG: 900 };
    animals.push(((await owner.post('/animals', body)).body as { id: string }).id);
  }
  sire = animals[1]!;
  await owner.get('/today');
});
afterAll(async () => {
  await backgroundEnded();
  await other.sequelize.close();
  await app.close();
});

test('whatever is done in whatever order, what is stored is what the records say', async () => {
  const acts = fc.array(fc.tuple(fc.nat(ACTS.length - 1), fc.nat(10_000)), {
    minLength: STEPS,
    maxLength: STEPS,
  });
  await fc.assert(
    fc.asyncProperty(acts, async (steps) => {
      for (const [which, n] of steps) await ACTS[which]!(n);
      await expectComputed(TODAY);
      await expectComputed(addDays(TODAY, 1));
    }),
    { numRuns: RUNS },
  );
  expect(app.faults).toEqual([]);
}, 240_000);
