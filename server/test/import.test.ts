import { spawnSync } from 'node:child_process';
import { closeSync, mkdtempSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { loadDemo } from '../src/demo/demo.ts';
import { importCollection, type Imported } from '../src/export/read-export.ts';
import { binary, PASSWORD, startTestApp, type TestApp } from './test-app.ts';

/* A collection that was exported comes in again, into another installation: every table and every file is what it was. */

const SECRET = 'only-for-tests';
let from: TestApp;
let to: TestApp;
let folder: string;
let email: string;
let imported: Imported;

/** The archive, as whoever is signed in downloads it. */
async function exported(app: TestApp, signIn: object, collection?: string): Promise<Buffer> {
  const agent = request.agent(app.express);
  const session = await agent.post('/api/v1/session').send(signIn);
  const { csrfToken, collections } = session.body as {
    csrfToken: string;
    collections: { id: string; name: string }[];
  };
  const chosen = collections.find(({ name }) => name === collection);
  if (chosen)
    await agent
      .put('/api/v1/session/collection')
      .set('X-CSRF-Token', csrfToken)
      .send({ collectionId: chosen.id });
  const answer = await agent.get('/api/v1/export').buffer(true).parse(binary);
  expect(answer.status).toBe(200);
  return answer.body as Buffer;
}

/** Unpacked, every file by its path within data/. */
function unpacked(archive: Buffer): Map<string, string> {
  const place = mkdtempSync(join(folder, 'unpacked-'));
  writeFileSync(join(place, 'all.zip'), archive);
  expect(spawnSync('unzip', ['-q', 'all.zip'], { cwd: place }).status).toBe(0);
  const listed = spawnSync('sh', ['-c', 'cd karyotome-*/data && find . -type f | sort | xargs sha256sum'], {
    cwd: place,
    encoding: 'utf8',
  });
  const [bag] = spawnSync('sh', ['-c', 'echo karyotome-*'], { cwd: place, encoding: 'utf8' }).stdout.split(
    '\n',
  );
  placeOf.set(archive, join(place, bag!, 'data'));
  return new Map(
    listed.stdout
      .trim()
      .split('\n')
      .map((line) => [line.slice(66).replace('./', ''), line.slice(0, 64)]),
  );
}
const placeOf = new Map<Buffer, string>();

async function takeIn(app: TestApp, archive: Buffer, owner: string): Promise<Imported> {
  const file = join(folder, 'in.zip');
  writeFileSync(file, archive);
  const descriptor = openSync(file, 'r');
  try {
    return await importCollection({ databaseUrl: app.databaseUrl, files: app.files }, descriptor, owner);
  } finally {
    closeSync(descriptor);
  }
}

let archive: Buffer;
let again: Buffer;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'karyotome-import-'));
  [from, to] = await Promise.all([startTestApp({ isEmpty: true }), startTestApp()]);
  await loadDemo(from.database, from.files, { dataDir: from.dataDir, signingSecret: SECRET });
  const [owner, password] = readFileSync(join(from.dataDir, 'owner-sign-in.txt'), 'utf8').split('\n');
  archive = await exported(from, { email: owner, password });
  email = await to.newAccount('Their own');
  imported = await takeIn(to, archive, email);
  again = await exported(to, { email, password: PASSWORD }, imported.name);
});
afterAll(async () => {
  await Promise.all([from.close(), to.close()]);
  rmSync(folder, { recursive: true, force: true });
});

describe('the round trip', () => {
  test('brings back every row of every table, and every file', () => {
    const [before, after] = [unpacked(archive), unpacked(again)];
    expect(imported.missing).toEqual([]);
    expect([...after.keys()]).toEqual([...before.keys()]);
    // Rights are given where the collection is; who has them is among the people. The description bears its moment.
    const own = ['tables/memberships.csv', 'tables/accounts.csv', 'tables/letters.csv', 'datapackage.json'];
    const differing = [...before]
      .filter(([path, digest]) => after.get(path) !== digest)
      .map(([path]) => path);
    expect(differing.filter((path) => !own.includes(path))).toEqual([]);
    expect(before.size).toBeGreaterThan(150);
  });

  test('holds letters that waited to be sent', () => {
    const table = (of: Buffer): string => readFileSync(join(placeOf.get(of)!, 'tables/letters.csv'), 'utf8');
    expect(table(again)).toBe(table(archive).replaceAll(',waiting,', ',draft,'));
  });

  test('and nothing that may be nothing is an empty text, which would come back as nothing', async () => {
    const [columns] = (await from.database.sequelize.query(
      `select table_name as "table", column_name as "column" from information_schema.columns
        where table_schema = 'public' and is_nullable = 'YES' and data_type = 'text'`,
    )) as [{ table: string; column: string }[], unknown];
    expect(columns.length).toBeGreaterThan(50);
    const found: string[] = [];
    for (const { table, column } of columns) {
      const [[row]] = (await from.database.sequelize.query(
        `select exists (select from ${table} where "${column}" = '') as there`,
      )) as [[{ there: boolean }], unknown];
      if (row.there) found.push(`${table}.${column}`);
    }
    expect(found).toEqual([]);
  });
});

test('whoever took it in owns it, reads it and goes on with it', async () => {
  const client = await to.signedIn(email);
  const { collections, csrfToken } = (await client.get('/session')).body as {
    collections: { id: string; name: string }[];
    csrfToken: string;
  };
  expect(csrfToken).not.toBe('');
  const { id } = collections.find(({ name }) => name === imported.name)!;
  await client.put('/session/collection', { collectionId: id });
  const animals = (await client.get('/animals?limit=1')).body as { total: number };
  const [[{ count }]] = (await from.database.sequelize.query(
    "select count(*)::int as count from animals where status <> 'egg'",
  )) as [[{ count: number }], unknown];
  expect(animals.total).toBeGreaterThan(50);
  expect(animals.total).toBeLessThanOrEqual(count);
  expect((await client.get('/today')).status).toBe(200);
  const made = await client.post('/animals', { number: 'AFTER-1', sex: 'male' });
  expect(made.status, JSON.stringify(made.body)).toBe(201);
  // What is added to the history comes after what came along.
  const { items } = (await client.get('/history?limit=5')).body as { items: { by: string }[] };
  expect(items[0]!.by).toBe('Tester');
  expect(JSON.stringify(items)).toContain('AFTER-1');
});

describe('what cannot come in', () => {
  const rowsOf = async (): Promise<unknown> =>
    (await to.database.sequelize.query('select count(*) from animals'))[0];

  test('a collection that is here already, an owner who is not', async () => {
    await expect(takeIn(to, archive, email)).rejects.toThrow('is here already');
    await expect(takeIn(from, archive, 'nobody@example.test')).rejects.toThrow('No account has the address');
  });

  test('an archive that was changed or cut off, and nothing of it stays', async () => {
    const before = await rowsOf();
    const changed = Buffer.from(archive);
    changed[Math.floor(changed.length / 2)]! ^= 1;
    await expect(takeIn(to, changed, email)).rejects.toThrow('This archive cannot be used');
    await expect(takeIn(to, archive.subarray(0, archive.length - 500), email)).rejects.toThrow(
      'This archive cannot be used',
    );
    await expect(takeIn(to, Buffer.from('no zip'), email)).rejects.toThrow('This archive cannot be used');
    expect(await rowsOf()).toEqual(before);
  });
});

describe('over the interface', () => {
  const send = (app: TestApp, bytes: Buffer, type = 'application/zip') =>
    app.owner.upload('/import', type, bytes);
  let empty: TestApp;
  beforeAll(async () => {
    empty = await startTestApp();
  });
  afterAll(() => empty.close());

  test('an owner takes an archive in, once, and finds the collection among theirs', async () => {
    const answer = await send(empty, archive);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    expect(answer.body).toMatchObject({ name: imported.name, files: imported.files });
    expect((answer.body as { rows: number }).rows).toBe(imported.rows);
    const { collections } = (await empty.owner.get('/session')).body as { collections: { name: string }[] };
    expect(collections.map(({ name }) => name)).toContain(imported.name);
    const again = await send(empty, archive);
    expect(again.status).toBe(422);
    expect(again.body).toMatchObject({ errors: [{ field: 'file', code: 'archive' }] });
  });

  test('what is no archive, or was cut off, is refused and leaves nothing', async () => {
    const count = async (): Promise<number> => {
      const [rows] = await empty.database.sequelize.query('select count(*)::int as count from collections');
      return (rows as { count: number }[])[0]!.count;
    };
    const before = await count();
    for (const bytes of [Buffer.from('PK nothing'), archive.subarray(0, archive.length / 2)])
      expect((await send(empty, bytes)).status).toBe(422);
    expect((await send(empty, archive, 'text/csv')).status).toBe(415);
    const keeper = await empty.newCollection('Kept', 'keeper');
    expect((await keeper.upload('/import', 'application/zip', archive)).status).toBe(403);
    // The keeper's own, and no other.
    expect(await count()).toBe(before + 1);
  });
});
