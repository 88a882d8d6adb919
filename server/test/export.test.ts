import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parsePedigree } from '@karyotome/core';
import datapackage from 'datapackage';
import Papa from 'papaparse';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { loadDemo } from '../src/demo/demo.ts';
import { binary, startTestApp, type TestApp } from './test-app.ts';

/*
 * Everything of a collection in one archive, read by programs that are not ours: unzip and sha256sum, and the reference
 * implementation of Data Packages by the Frictionless project.
 */

const SECRET = 'only-for-tests';
let app: TestApp;
let folder: string;
let bag: string;
let agent: ReturnType<typeof request.agent>;
const inDatabase = async <Row>(sql: string): Promise<Row[]> => {
  const [rows] = await app.database.sequelize.query(sql);
  return rows as Row[];
};

beforeAll(async () => {
  app = await startTestApp({ isEmpty: true });
  await loadDemo(app.database, app.files, { dataDir: app.dataDir, signingSecret: SECRET });
  // Beside another collection, of which nothing may come along.
  await app.newCollection('Of somebody else');
  const [email, password] = readFileSync(join(app.dataDir, 'owner-sign-in.txt'), 'utf8').split('\n');
  agent = request.agent(app.express);
  await agent.post('/api/v1/session').send({ email, password });
  const answer = await agent.get('/api/v1/export').buffer(true).parse(binary);
  expect(answer.status).toBe(200);
  expect(answer.headers['cache-control']).toBe('no-store');
  folder = mkdtempSync(join(tmpdir(), 'karyotome-export-'));
  writeFileSync(join(folder, 'all.zip'), answer.body as Buffer);
  expect(spawnSync('unzip', ['-q', 'all.zip'], { cwd: folder }).status).toBe(0);
  bag = join(
    folder,
    readdirSync(folder).find((name) => name.startsWith('karyotome-'))!,
  );
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('the archive', () => {
  test('is a bag whose every file is what its manifests say', () => {
    expect(readFileSync(join(bag, 'bagit.txt'), 'utf8')).toContain('BagIt-Version: 1.0');
    for (const manifest of ['manifest-sha256.txt', 'tagmanifest-sha256.txt']) {
      const checked = spawnSync('sha256sum', ['--check', '--strict', '--quiet', manifest], {
        cwd: bag,
        encoding: 'utf8',
      });
      expect(checked.status, checked.stdout + checked.stderr).toBe(0);
    }
  });

  test('has every picture and every statement as they are', async () => {
    const pictures = await inDatabase<{ file: string }>('select file from pictures');
    expect(pictures.length).toBeGreaterThan(50);
    for (const { file } of pictures)
      expect(
        readFileSync(join(bag, 'data/pictures', file)).equals(
          await app.files.read({ folder: 'pictures', name: file }),
        ),
      ).toBe(true);
    const statements = await inDatabase<{ animal: string; statement: number; document: string }>(
      'select animal_id as animal, statement, document from statements',
    );
    expect(statements.length).toBeGreaterThan(0);
    for (const { animal, statement, document } of statements)
      expect(readFileSync(join(bag, 'data/statements', animal, `${statement}.json`), 'utf8')).toBe(document);
  });

  test('holds no secret, no address to sign in with, and nothing of another collection', async () => {
    const [{ id } = { id: '' }] = await inDatabase<{ id: string }>(
      "select id from collections where name = 'Of somebody else'",
    );
    const accounts = await inDatabase<{ email: string; hash: string }>(
      'select email, password_hash as hash from accounts',
    );
    const tables = readdirSync(join(bag, 'data/tables'));
    const all = tables.map((name) => readFileSync(join(bag, 'data/tables', name), 'utf8')).join('\n');
    expect(id).not.toBe('');
    expect(all).not.toContain(id);
    for (const { email, hash } of accounts) {
      expect(all).not.toContain(email);
      expect(all).not.toContain(hash);
    }
    expect(all.split('\n').filter((line) => /sealed_secret|token_digest|password/.test(line))).toEqual([]);
  });
});

describe('the Data Package', () => {
  test('is valid, and its every table is read with its types, keys and all rows', async () => {
    const read = await datapackage.Package.load(join(bag, 'data/datapackage.json'), {
      basePath: join(bag, 'data'),
      strict: true,
    }).catch((error: Error & { errors?: Error[] }) => {
      throw new Error(`${error.message}: ${String(error.errors)}`);
    });
    expect(read.valid, String(read.errors)).toBe(true);
    expect(read.resources.length).toBeGreaterThan(40);
    for (const resource of read.resources) {
      const rows = await resource.read({ keyed: true }).catch((error: Error & { errors?: Error[] }) => {
        throw new Error(`${resource.name}: ${String(error.errors ?? error)}`);
      });
      const table = resource.name.replaceAll('-', '_');
      if (table === 'accounts') continue;
      const where =
        table === 'collections'
          ? "where name <> 'Of somebody else'"
          : "where collection_id in (select id from collections where name <> 'Of somebody else')";
      const [row] = await inDatabase<{ count: number }>(
        `select count(*)::int as count from ${table} ${where}`,
      );
      // The export itself was noted after it was written, and so was the other collection’s beginning elsewhere.
      if (table !== 'history') expect(rows.length, table).toBe(row!.count);
      else expect(row!.count - rows.length).toBeLessThanOrEqual(1);
    }
  }, 240_000);

  test('says the same as the database, value by value', async () => {
    const read = await datapackage.Package.load(join(bag, 'data/datapackage.json'), {
      basePath: join(bag, 'data'),
    });
    const animals = await read.getResource('animals')!.read({ keyed: true });
    const kept = await inDatabase<Record<string, unknown>>(
      'select id, number, name, sex, hatched_on, note, version from animals order by id',
    );
    const byId = new Map(animals.map((animal) => [animal['id'], animal]));
    expect(byId.size).toBe(kept.length);
    for (const row of kept) {
      const found = byId.get(row['id'] as string)!;
      for (const field of ['number', 'name', 'sex', 'version'])
        expect(found[field] ?? null).toEqual(row[field] ?? null);
    }
    const records = await read.getResource('records')!.read({ keyed: true });
    const bodies = new Map(records.map((record) => [record['id'], record['body']]));
    for (const { id, body } of await inDatabase<{ id: string; body: object }>('select id, body from records'))
      expect(bodies.get(id)).toEqual(body);
  }, 240_000);
});

test('is for whoever may change people and rules, and is noted', async () => {
  const keeper = await app.newCollection('Of a keeper', 'keeper');
  expect((await keeper.get('/export')).status).toBe(403);
  expect((await app.anonymous.get('/export')).status).toBe(401);
  const { body } = await agent.get('/api/v1/history?limit=5');
  expect((body as { items: { action: string }[] }).items.map(({ action }) => action)).toContain('exported');
});

describe('for other programs', () => {
  test('PLINK reads the pedigree with all its animals', async () => {
    const answer = await agent.get('/api/v1/export/plink.zip').buffer(true).parse(binary);
    expect(answer.status).toBe(200);
    const place = mkdtempSync(join(folder, 'plink-'));
    writeFileSync(join(place, 'plink.zip'), answer.body as Buffer);
    expect(spawnSync('unzip', ['-q', 'plink.zip'], { cwd: place }).status).toBe(0);
    const read = spawnSync('/usr/bin/plink1.9', ['--file', 'collection', '--mendel'], {
      cwd: place,
      encoding: 'utf8',
    });
    expect(read.status, read.stdout + read.stderr).toBe(0);
    const [{ count } = { count: 0 }] = await inDatabase<{ count: number }>(
      "select count(*)::int as count from animals a join collections c on c.id = a.collection_id where c.name <> 'Of somebody else'",
    );
    expect(read.stdout).toContain(`${count} people (`);
  });

  test('the pedigree document is one that the engine reads, with the numbers of the farm', async () => {
    const answer = await agent.get('/api/v1/export/pedigree.json');
    expect(answer.status).toBe(200);
    const pedigree = parsePedigree(answer.body);
    const numbers = await inDatabase<{ number: string }>(
      "select number from animals a join collections c on c.id = a.collection_id where c.name <> 'Of somebody else'",
    );
    expect(pedigree.animals.map(({ id }) => id).toSorted()).toEqual(
      numbers.map(({ number }) => number).toSorted(),
    );
    expect(pedigree.loci.length).toBeGreaterThan(10);
  });

  test.each([
    ['weights', 'weight', 'mass_g', (body: Body) => String(body.massG)],
    ['meals', 'feeding', 'taken', (body: Body) => String(body.taken)],
  ] as const)(
    '%s in long format are the standing records, one a row',
    async (name, kind, column, valueOf) => {
      const answer = await agent.get(`/api/v1/export/${name}.csv`);
      expect(answer.status).toBe(200);
      const { data } = Papa.parse<Record<string, string>>(answer.text.trim(), { header: true });
      const records = await inDatabase<{ animal: string; day: string; body: Body }>(
        `select animal_id as animal, on_day::text as day, body from records where kind = '${kind}' and voided_at is null`,
      );
      const rows = data.map((row) => [row['animal_id'], row['on'], row[column]].join(' ')).toSorted();
      expect(rows).toEqual(
        records.map(({ animal, day, body }) => [animal, day, valueOf(body)].join(' ')).toSorted(),
      );
    },
  );

  test('readings are those of this collection, by place and moment, in UTC', async () => {
    const answer = await agent.get('/api/v1/export/readings.csv');
    const { data } = Papa.parse<Record<string, string>>(answer.text.trim(), { header: true });
    const readings = await inDatabase<{ place: string; at: string; celsius: number }>(
      `select p.name as place, to_json(r.at)::text as at, r.celsius from readings r
         join climate_places p on p.id = r.place_id order by p.kind, p.name, r.at`,
    );
    expect(readings.length).toBeGreaterThan(100);
    expect(data.map(({ place, at, celsius }) => [place, Date.parse(at!), Number(celsius)])).toEqual(
      readings.map(({ place, at, celsius }) => [place, Date.parse(JSON.parse(at) as string), celsius]),
    );
    expect(new Set(data.map(({ kind }) => kind))).toEqual(new Set(['incubator', 'room']));
  });
});

interface Body {
  readonly massG?: number;
  readonly taken?: boolean;
}
