import { randomUUID } from 'node:crypto';
import type { AnimalView, RoundResult } from '@karyotome/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { tidy } from '../src/upkeep/upkeep.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* A write takes effect once per key and person, however often it is sent; entries never come in under another name. */

const TODAY = machineToday();
let app: TestApp;
let owner: TestClient;
let colleague: TestClient;
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  colleague = await app.colleague();
});
afterAll(() => app.close());

let turn = 0;
async function animal(): Promise<{ id: string; version: number }> {
  turn += 1;
  const { id } = (await owner.post('/animals', { number: `K-${turn}`, sex: 'female' })).body as {
    id: string;
  };
  return { id, version: ((await owner.get(`/animals/${id}`)).body as AnimalView).version };
}
const weight = (massG: number) => ({ kind: 'weight', on: TODAY, body: { massG } });
const weightsOf = async (id: string): Promise<number[]> =>
  ((await owner.get(`/animals/${id}`)).body as AnimalView).records.flatMap((record) =>
    record.kind === 'weight' && !record.voided ? [record.body.massG] : [],
  );
const accountOf = async (client: TestClient): Promise<string> =>
  ((await client.get('/session')).body as { account: { id: string } }).account.id;

describe('a key', () => {
  test('belongs to its person: another’s write under the same words is another write', async () => {
    const { id } = await animal();
    const headers = { 'Idempotency-Key': 'the-same-words' };
    const [mine, theirs] = [
      await owner.post(`/animals/${id}/records`, weight(101), headers),
      await colleague.post(`/animals/${id}/records`, weight(102), headers),
    ];
    expect([mine.status, theirs.status]).toEqual([201, 201]);
    expect((await weightsOf(id)).toSorted()).toEqual([101, 102]);
  });

  test('covers the method, the address, the version and the body', async () => {
    const { id, version } = await animal();
    const other = await animal();
    const headers = { 'Idempotency-Key': randomUUID() };
    expect((await owner.post(`/animals/${id}/records`, weight(101), headers)).status).toBe(201);
    expect((await owner.post(`/animals/${id}/records`, weight(101), headers)).status).toBe(201);
    expect((await owner.post(`/animals/${id}/records`, weight(102), headers)).status).toBe(409);
    expect((await owner.post(`/animals/${other.id}/records`, weight(101), headers)).status).toBe(409);
    expect(await weightsOf(id)).toEqual([101]);
    const patch = { 'Idempotency-Key': randomUUID() };
    const change = (of: number) =>
      owner.patch(`/animals/${id}`, { name: 'Juniper' }, { ...patch, 'If-Match': `"${of}"` });
    expect((await change(version)).status).toBe(200);
    expect((await change(version)).status).toBe(200);
    const another = await change(version + 1);
    expect(another.body).toMatchObject({ type: 'urn:karyotome:problem:key-reused' });
  });

  test('of a refused write is free again', async () => {
    const { id } = await animal();
    const headers = { 'Idempotency-Key': randomUUID() };
    expect((await owner.post(`/animals/${id}/records`, weight(-1), headers)).status).toBe(422);
    expect((await owner.post(`/animals/${id}/records`, weight(103), headers)).status).toBe(201);
  });

  test('is kept as long as a device may be without a connection: 90 days; sessions until they run out', async () => {
    const { sequelize } = app.database;
    const { id } = await animal();
    const key = randomUUID();
    await owner.post(`/animals/${id}/records`, weight(104), { 'Idempotency-Key': key });
    const age = (days: number) =>
      sequelize.query(
        `update idempotent_writes set created_at = now() - make_interval(days => ${days}) where key = '${key}'`,
      );
    const isThere = async (): Promise<boolean> =>
      (await app.database.models.idempotentWrites.count({ where: { key } })) > 0;
    await age(89);
    await tidy(app.database);
    expect(await isThere()).toBe(true);
    await age(91);
    await sequelize.query("insert into sessions values ('old', '{}', now() - interval '1 hour')");
    await tidy(app.database);
    expect(await isThere()).toBe(false);
    const [rows] = await sequelize.query("select 1 from sessions where sid = 'old'");
    expect(rows).toEqual([]);
    expect((await owner.get('/session')).status).toBe(200);
  });
});

describe('whose a write is', () => {
  test('one that was written on somebody else’s page is not sent under this name', async () => {
    const { id } = await animal();
    const headers = { 'Account-Id': await accountOf(owner) };
    const crossed = await colleague.post(`/animals/${id}/records`, weight(105), headers);
    expect(crossed.status).toBe(403);
    expect(crossed.body).toMatchObject({ type: 'urn:karyotome:problem:other-account' });
    expect(await weightsOf(id)).toEqual([]);
    expect((await owner.post(`/animals/${id}/records`, weight(105), headers)).status).toBe(201);
  });

  test('nor are a round’s entries', async () => {
    const { id } = await animal();
    const entries = [{ key: randomUUID(), animalId: id, record: weight(106) }];
    const accountId = await accountOf(owner);
    expect((await colleague.post('/rounds/entries', { entries, accountId })).status).toBe(403);
    const kept = await owner.post('/rounds/entries', { entries, accountId });
    expect((kept.body as { results: RoundResult[] }).results).toMatchObject([{ status: 'kept' }]);
  });
});
