/*
 * npm run bench:load: how much a read costs at 1,000 and at 10,000 animals, alone, after a restart, after midnight, and with
 * fifty people at once; load generator, server and PostgreSQL on the same cores. Each figure also as a ratio to the same
 * rows read by plain SQL through the driver.
 */
import http from 'node:http';
import { mkdtempSync, rmSync, mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Page, RoundResult } from '@karyotome/contract';
import pg from 'pg';
import { build } from '../scripts/build.mjs';
import { startPostgres, stopPostgres } from '../scripts/postgres.mjs';
import { ROOT } from '../scripts/root.mjs';
import { migrate } from '../server/src/db/migrate.ts';
import { openDatabase } from '../server/src/db/open.ts';
import { machineToday } from '../server/src/db/work.ts';
import { administer, databaseUrl } from '../server/test/template.ts';
import { fillCollection } from './collection.ts';
import { Client, launch, PASSWORD, type Running } from './launch.ts';
import { ms, summarise, time } from './report.ts';

const CLIENTS = 50;
const SECONDS = Number(process.env['SECONDS'] ?? 20);

interface Size {
  readonly name: string;
  readonly animals: number;
  readonly events: number;
  /** Milliseconds, requests a second, megabytes. */
  readonly limits: {
    readonly alone: number;
    readonly restart: number;
    readonly midnight: number;
    readonly write: number;
    readonly perSecond: number;
    readonly p95: number;
    readonly delay: number;
    readonly rss: number;
    readonly round: number;
  };
}
const SIZES: readonly Size[] = [
  {
    name: '1,000 animals, 300,000 events',
    animals: 1000,
    events: 300_000,
    limits: {
      alone: 40,
      restart: 500,
      midnight: 200,
      write: 20,
      perSecond: 200,
      p95: 600,
      delay: 30,
      rss: 300,
      round: 500,
    },
  },
  {
    name: '10,000 animals, 1,000,000 events',
    animals: 10_000,
    events: 1_000_000,
    limits: {
      alone: 60,
      restart: 1000,
      midnight: 500,
      write: 20,
      perSecond: 150,
      p95: 800,
      delay: 30,
      rss: 500,
      round: 500,
    },
  },
];
const MOST_BYTES = 60_000;
const AIM_TIMES_SQL = 3;
const MOST_TIMES_TENFOLD = 1.5;

const lines: string[] = [];
const say = (line: string): void => {
  lines.push(line);
  console.log(line);
};
/** A figure with its limit; one that is missed fails the run. */
function kept(what: string, value: number, limit: number, unit = 'ms', isFloor = false): string {
  const isKept = isFloor ? value >= limit : value <= limit;
  if (!isKept) {
    console.error(
      `${what}: ${value.toFixed(1)} ${unit}, ${isFloor ? 'under' : 'over'} its limit of ${limit}`,
    );
    process.exitCode = 1;
  }
  return `${value < 10 ? value.toFixed(1) : value.toFixed(0)} ${unit}${isKept ? '' : ' **missed**'}`;
}

interface Farm {
  readonly url: string;
  readonly ids: readonly string[];
  readonly racks: readonly string[];
  readonly collectionId: string;
}

const agent = new http.Agent({ keepAlive: true, maxSockets: CLIENTS });
let turn = 0;
const next = (list: readonly string[]): string => list[(turn++ * 37) % list.length]!;

/** What is shown, by the name of its screen. */
const screens = ({ ids, racks }: Farm): Readonly<Record<string, () => string>> => ({
  'one animal’s page': () => `/animals/${next(ids)}`,
  'Today’s first screen': () => '/today',
  'racks’ first screen': () => '/racks',
  'one rack': () => `/racks/${next(racks)}`,
  'a rack of the round': () => `/rounds/racks/${next(racks)}`,
  'animals’ first page': () => '/animals',
  season: () => '/season',
  'females of the season': () => '/season/females',
});

const meal = () => ({
  kind: 'feeding',
  on: machineToday(),
  body: { species: 'rat', size: 'small', state: 'frozen-thawed', taken: true },
});
const weight = () => ({ kind: 'weight', on: machineToday(), body: { massG: 1400 + (turn % 60) } });
const write = (farm: Farm, client: Client) =>
  client.post(`/animals/${next(farm.ids)}/records`, turn % 2 === 0 ? meal() : weight());

/** The rows of a screen by plain SQL: of a collection, and of one animal or rack where there is one. */
const PLAIN_SQL: Readonly<Record<string, { readonly sql: string; readonly of: 'ids' | 'racks' | null }>> = {
  'one animal’s page': {
    sql: `select *, (select json_agg(r.*) from records r where r.collection_id = a.collection_id and r.animal_id = a.id)
            from animals a where a.collection_id = $1 and a.id = $2`,
    of: 'ids',
  },
  'Today’s first screen': {
    sql: `select d.*, a.* from due_tasks d join animals a on a.collection_id = d.collection_id and a.id = d.animal_id
           where d.collection_id = $1 and d.day = current_date order by d.urgency, d.place_key limit 50`,
    of: null,
  },
  'a rack of the round': {
    sql: `select a.*, s.facts from animals a join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
            join animal_states s on s.collection_id = a.collection_id and s.animal_id = a.id and s.day = current_date
           where a.collection_id = $1 and t.rack_id = $2`,
    of: 'racks',
  },
};

async function plainSql(farm: Farm): Promise<ReadonlyMap<string, number>> {
  const client = new pg.Client(farm.url);
  await client.connect();
  const found = new Map<string, number>();
  for (const [name, { sql, of }] of Object.entries(PLAIN_SQL)) {
    const { median } = await time(60, () =>
      client.query(sql, [farm.collectionId, ...(of === null ? [] : [next(farm[of])])]),
    );
    found.set(name, median);
  }
  await client.end();
  return found;
}

/** One after the other, by nobody else. */
async function alone(farm: Farm, size: Size, client: Client): Promise<ReadonlyMap<string, number>> {
  const sql = await plainSql(farm);
  const medians = new Map<string, number>();
  say('\n| alone | median | p95 | of plain SQL | gzip |\n| --- | --- | --- | --- | --- |');
  for (const [name, path] of Object.entries(screens(farm))) {
    const bytes = gzipSync((await client.get(path())).body).length;
    const timing = await time(60, () => client.get(path()));
    medians.set(name, timing.median);
    const plain = sql.get(name);
    const ratio =
      plain === undefined ? '' : `${(timing.median / plain).toFixed(1)} × (aim: ${AIM_TIMES_SQL})`;
    const p95 = kept(`${size.name}, ${name}`, timing.p95, size.limits.alone);
    const weightOf = kept(`${size.name}, ${name}, gzip`, bytes / 1000, MOST_BYTES / 1000, 'kB');
    say(`| ${name} | ${ms(timing.median)} | ${p95} | ${ratio} | ${weightOf} |`);
  }
  const writes = await time(60, () => write(farm, client));
  say(
    `| a meal or a weight logged | ${ms(writes.median)} | ${kept(`${size.name}, a write`, writes.p95, size.limits.write)} | | |`,
  );
  const rounds = await time(3, () => sendRound(farm, client));
  say(
    `| a round of 200 entries | ${ms(rounds.median)} | ${kept(`${size.name}, a round`, rounds.p95, size.limits.round)} | | |`,
  );
  return medians;
}

async function sendRound(farm: Farm, client: Client): Promise<void> {
  const entries = farm.ids.slice(0, 200).map((animalId) => ({
    key: crypto.randomUUID(),
    animalId,
    record: { kind: 'care', on: machineToday(), body: { act: 'cleaned' } },
  }));
  const { results } = JSON.parse((await client.post('/rounds/entries', { entries })).body) as {
    results: RoundResult[];
  };
  if (results.some(({ status }) => status !== 'kept')) throw new Error('An entry was not kept.');
}

/** The first request of each screen to a server that has just started. */
async function firstRequests(
  farm: Farm,
  what: string,
  limit: number,
  start: () => Promise<Running>,
): Promise<void> {
  say(`\n| ${what} | first request |\n| --- | --- |`);
  for (const name of [
    'one animal’s page',
    'Today’s first screen',
    'racks’ first screen',
    'a rack of the round',
    'season',
  ]) {
    const running = await start();
    const client = await Client.signIn(running.origin, new http.Agent({ keepAlive: true }));
    const { ms: took } = await client.get(screens(farm)[name]!());
    say(`| ${name} | ${kept(`${what}, ${name}`, took, limit)} |`);
    await running.stop();
  }
}

/** Fifty people at once. */
async function together(farm: Farm, size: Size, running: Running): Promise<void> {
  const all = screens(farm);
  const MIX: readonly (readonly [number, string])[] = [
    [0.35, 'a meal or a weight logged'],
    [0.35, 'one animal’s page'],
    [0.12, 'Today’s first screen'],
    [0.08, 'one rack'],
    [0.05, 'animals’ first page'],
    [0.05, 'females of the season'],
  ];
  const clients = [await Client.signIn(running.origin, agent)];
  const samples = new Map<string, number[]>(MIX.map(([, name]) => [name, []]));
  await running.watched();
  const until = Date.now() + SECONDS * 1000;
  let dice = 1;
  const pick = (): string => {
    dice = (dice * 48_271) % 2_147_483_647;
    let left = dice / 2_147_483_647;
    for (const [share, name] of MIX) if ((left -= share) < 0) return name;
    return MIX[0]![1];
  };
  await Promise.all(
    Array.from({ length: CLIENTS }, async () => {
      while (Date.now() < until) {
        const name = pick();
        const { ms: took } =
          name === 'a meal or a weight logged'
            ? await write(farm, clients[0]!)
            : await clients[0]!.get(all[name]!());
        samples.get(name)!.push(took);
      }
    }),
  );
  const { delayP99, delayMax, rssMb } = await running.watched();
  const count = [...samples.values()].reduce((sum, list) => sum + list.length, 0);
  say(`\n| ${CLIENTS} clients | a second | median | p95 |\n| --- | --- | --- | --- |`);
  say(
    `| all | ${kept(`${size.name}, throughput`, count / SECONDS, size.limits.perSecond, 'a second', true)} | | |`,
  );
  for (const [name, list] of samples) {
    const { median, p95 } = summarise(list);
    say(
      `| ${name} | ${(list.length / SECONDS).toFixed(0)} | ${ms(median)} | ${kept(`${size.name}, ${CLIENTS} clients, ${name}`, p95, size.limits.p95)} |`,
    );
  }
  say(
    `\nDelay of the event loop: p99 ${kept(`${size.name}, event loop`, delayP99, size.limits.delay)}, longest ${ms(delayMax)}. Memory: ${kept(`${size.name}, memory`, rssMb, size.limits.rss, 'MB')}.`,
  );
}

/** With REUSE=1: the collection as an earlier run left it. */
async function reused(url: string): Promise<Farm> {
  const client = new pg.Client(url);
  await client.connect();
  const idsOf = async (sql: string): Promise<string[]> =>
    (await client.query<{ id: string }>(sql)).rows.map(({ id }) => id);
  const ids = await idsOf('select id from animals order by number');
  const racks = await idsOf('select id from racks order by name');
  const [collectionId] = await idsOf('select id from collections');
  await client.end();
  return { url, ids, racks, collectionId: collectionId! };
}

async function fill(size: Size, server: string): Promise<Farm> {
  const name = `bench_${size.animals}`;
  if (process.env['REUSE']) return reused(databaseUrl(server, name));
  await administer(server, `drop database if exists ${name} with (force)`, `create database ${name}`);
  const url = databaseUrl(server, name);
  const database = openDatabase(url, (error) => console.error(error));
  await migrate(database.sequelize);
  const { actor, ids, racks } = await fillCollection(database, size.animals, size.events, PASSWORD);
  await database.sequelize.close();
  return { url, ids, racks, collectionId: actor.collectionId };
}

async function benchSize(size: Size, server: string): Promise<ReadonlyMap<string, number>> {
  say(`\n## ${size.name}`);
  const farm = await fill(size, server);
  const dataDir = mkdtempSync(join(tmpdir(), 'karyotome-load-'));
  const running = await launch(farm.url, dataDir);
  const client = await Client.signIn(running.origin, agent);
  const begun = performance.now();
  await settled(client);
  say(`\nThe first day of all is computed in ${ms(performance.now() - begun)}.`);
  const medians = await alone(farm, size, client);
  await together(farm, size, running);
  await running.stop();
  await firstRequests(farm, 'after a restart', size.limits.restart, () => launch(farm.url, dataDir));
  rmSync(dataDir, { recursive: true, force: true });
  return medians;
}

/** Asks until the day stands: a large collection is told to come back while it is computed. */
async function settled(client: Client): Promise<void> {
  for (;;) {
    try {
      const { total } = JSON.parse((await client.get('/today')).body) as Page<unknown>;
      if (total > 0) return;
    } catch (error) {
      if (!String(error).includes('503')) throw error;
    }
  }
}

await build();
say(
  '# Load\n\nGenerated by `npm run bench:load`; never edited by hand. Load generator, server and database on the same cores.',
);
const server = (await startPostgres('bench', () => undefined)).url('postgres');
const wanted = process.argv[2];
const results: ReadonlyMap<string, number>[] = [];
for (const size of SIZES.filter(({ animals }) => wanted === undefined || String(animals) === wanted))
  results.push(await benchSize(size, server));
const [small, large] = results;
if (small && large) {
  say('\n## Ten times the animals\n\n| screen | times |\n| --- | --- |');
  for (const [name, median] of large)
    say(
      `| ${name} | ${kept(`ten times the animals, ${name}`, median / small.get(name)!, MOST_TIMES_TENFOLD, '×')} |`,
    );
}
if (wanted === undefined) {
  mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
  writeFileSync(join(ROOT, 'bench/results/load.md'), `${lines.join('\n')}\n`);
}
agent.destroy();
await stopPostgres('bench');
