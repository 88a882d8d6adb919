import type { AnimalView } from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { QueryTypes } from 'sequelize';
import { backgroundEnded } from '../src/background.ts';
import { reading, type Reader } from '../src/db/work.ts';
import { supportedClaims, type SupportedClaim } from '../src/domain/genetics/claim-views.ts';
import { geneticsOf } from '../src/domain/genetics/genetics.service.ts';
import { saveClaims } from '../src/domain/genetics/stored-claims.repository.ts';
import { storeClaims } from '../src/domain/genetics/stored-claims.ts';
import { forgetComputedByOthers } from '../src/upkeep/forget-computed.ts';
import { ago, TODAY } from './days.ts';
import { maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* What an animal is claimed to be is stored with the revision of the genetic records that it was found at. */

let app: TestApp;
let owner: TestClient;
let reader: Reader;
let sire: string;
let young: string;

const { created } = maker(() => owner, ago);
const rows = <T extends object>(sql: string): Promise<T[]> =>
  app.database.sequelize.query<T>(sql, { type: QueryTypes.SELECT });
const labels = async (id: string): Promise<string[]> =>
  ((await owner.get(`/animals/${id}`)).body as AnimalView).claims.map(({ label }) => label);
const genetics = () => reading(app.database, reader, geneticsOf);
/** As JSON has them: stored ones went through it. */
const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
let turn = 0;

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  const [membership] = await app.database.models.memberships.findAll();
  reader = { collectionId: membership!.get().collectionId };
});
afterAll(() => app.close());
beforeEach(async () => {
  turn += 1;
  sire = await created('/animals', {
    number: `S-${turn}`,
    sex: 'male',
    genes: 'clown',
    hatchedOn: ago(1500),
  });
  const damId = await created('/animals', { number: `D-${turn}`, sex: 'female', genes: 'normal' });
  young = await created('/animals', {
    number: `Y-${turn}`,
    sex: 'unknown',
    genes: 'normal',
    hatchedOn: ago(300),
    damId,
    sireId: sire,
  });
});

test('all that are kept here are found out beforehand, as they are when asked for', async () => {
  // Collections that nobody looks at are left alone.
  expect((await owner.get('/today')).status).toBe(200);
  await storeClaims(app.database);
  const now = await genetics();
  const stored = await rows<{ id: string; revision: string; claims: SupportedClaim[] }>(
    'select animal_id as id, revision, claims from animal_claims',
  );
  expect(stored.map(({ id }) => id)).toEqual(expect.arrayContaining([sire, young]));
  for (const { id, revision, claims } of stored) {
    expect(revision).toBe(now.revision);
    expect(claims).toEqual(asJson(await supportedClaims(now, id)));
  }
});

test('a page takes what is stored, until a genetic record changes', async () => {
  expect(await labels(young)).toEqual(['100% het Clown']);
  await backgroundEnded();
  // Nobody but this test writes something else: it shows where the page has its claims from.
  await app.database.sequelize.query(`update animal_claims set claims = '[]' where animal_id = '${young}'`);
  expect(await labels(young)).toEqual([]);
  await created(`/animals/${young}/records`, {
    kind: 'identification',
    on: TODAY,
    body: { genes: 'pastel', by: 'Ida', sure: 'certain' },
  });
  expect(await labels(young)).toEqual(expect.arrayContaining(['100% het Clown']));
});

test('what was found at an earlier revision does not take the place of a later', async () => {
  await labels(young);
  await backgroundEnded();
  const { revision } = await genetics();
  await saveClaims(app.database, reader.collectionId, young, String(Number(revision) - 1), []);
  const [kept] = await rows<{ revision: string; claims: unknown[] }>(
    `select revision, claims from animal_claims where animal_id = '${young}'`,
  );
  expect(kept).toMatchObject({ revision, claims: [{}] });
});

test('what another build of the program computed is removed, and computed anew', async () => {
  const { database } = app;
  const look = async (): Promise<unknown[]> => {
    const found = [(await owner.get('/today')).body, (await owner.get(`/animals/${young}`)).body];
    await backgroundEnded();
    return found;
  };
  const counted = async (): Promise<object> =>
    (
      await rows(`select (select count(*) from animal_claims)::int as claims,
        (select count(*) from animal_states)::int as states, (select count(*) from due_tasks)::int as tasks`)
    )[0]!;
  const none = { claims: 0, states: 0, tasks: 0 };
  expect(await forgetComputedByOthers(database, 'one build')).toBe(true);
  const before = await look();
  const full = await counted();
  expect(full).not.toEqual(none);
  expect(await forgetComputedByOthers(database, 'one build')).toBe(false);
  expect(await counted()).toEqual(full);
  expect(await forgetComputedByOthers(database, 'the next')).toBe(true);
  expect(await counted()).toEqual(none);
  expect(await look()).toEqual(before);
  expect(await counted()).toEqual(full);
});
