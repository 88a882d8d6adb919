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
import { build } from '../scripts/build.mjs';
import { stopPostgres } from '../scripts/postgres.mjs';
import { startServer } from '../server/test/template.ts';
import { ROOT } from '../scripts/root.mjs';
import { openDatabase } from '../server/src/db/open.ts';
import { machineToday } from '../server/src/db/work.ts';
import { rollOver } from '../server/src/domain/states/roll-over.ts';
import { stopThreads } from '../server/src/threads/pool.ts';
import { Client, launch, type Running } from './launch.ts';
import { fill, plainSql, screens, write, type Farm } from './load-farm.ts';
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

const agent = new http.Agent({ keepAlive: true, maxSockets: CLIENTS });
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

/** The first request of each screen: to a server that has just started, or whose day has just begun. */
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

/** What the recurring work does every evening: the next day's states are computed. */
async function evening(farm: Farm): Promise<void> {
  const database = openDatabase(farm.url, (error) => console.error(error));
  await rollOver(database, 0);
  await database.sequelize.close();
  await stopThreads();
}

/** A server on the next day that has answered the day before: it is asked about something else first. */
async function tomorrow(farm: Farm, dataDir: string): Promise<Running> {
  const running = await launch(farm.url, dataDir, { CLOCK_AHEAD_DAYS: '1' });
  const client = await Client.signIn(running.origin, new http.Agent());
  // What is inferred of genes does not turn on the day, and was there before midnight.
  await client.get('/contradictions');
  return running;
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
  await evening(farm);
  await firstRequests(farm, 'after midnight', size.limits.midnight, () => tomorrow(farm, dataDir));
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
const { serverUrl: server } = await startServer('bench');
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
