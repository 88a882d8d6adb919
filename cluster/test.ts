/*
 * npm run test:cluster: people work while processes, the primary, a line and the pooler fail. Counts what was lost or doubled,
 * and says how long nothing was answered. `SHORT=1` leaves out what takes longest.
 */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { ROOT } from '../scripts/root.mjs';
import { ask } from './answers.ts';
import { Cluster } from './cluster.ts';
import { count } from './count.ts';
import { Load } from './load.ts';
import type { Node } from './node.ts';
import { freePorts } from '../scripts/ports.mjs';
import { until } from './program.ts';

const PEOPLE = 8;
/** People work so long before anything fails, and after it is well again. */
const QUIET_MS = 4_000;
const folder = join(ROOT, '.data', 'cluster-test');
const isShort = process.env['SHORT'] === '1';

/** What failed, and what people had of it. */
interface Told {
  readonly fault: string;
  readonly longestGapMs: number;
  readonly answered: number;
  readonly repeated: number;
  readonly givenUp: number;
}

const told: Told[] = [];
let failed = 0;
const check = (what: string, isSo: boolean): void => {
  console.log(`${isSo ? 'ok    ' : 'FAILED'}  ${what}`);
  if (!isSo) failed += 1;
};

/** Lets something fail while people work, and waits until they have worked for a while after it. */
async function during(load: Load, fault: string, fail: () => Promise<void>): Promise<void> {
  await sleep(QUIET_MS);
  const begun = Date.now();
  await fail();
  await until('entries are answered again', () =>
    load.since(Date.now() - 1_000).some(({ isWrite }) => isWrite),
  );
  await sleep(QUIET_MS);
  const answers = load.since(begun);
  const writes = [begun, ...answers.filter((one) => one.isWrite && !one.isGivenUp).map(({ at }) => at)];
  const gaps = writes.slice(1).map((at, i) => at - writes[i]!);
  told.push({
    fault,
    longestGapMs: Math.max(...gaps),
    answered: answers.length,
    repeated: answers.filter(({ repeated }) => repeated > 0).length,
    givenUp: answers.filter(({ isGivenUp }) => isGivenUp).length,
  });
  const { longestGapMs, givenUp } = told.at(-1)!;
  console.log(
    `${fault}: ${(longestGapMs / 1000).toFixed(1)} s without an answered entry, ${givenUp} given up`,
  );
}

const otherOf = (cluster: Cluster, node: Node): Node => cluster.nodes.find((one) => one !== node)!;

async function run(cluster: Cluster): Promise<void> {
  const since = new Date();
  const load = await Load.begin(cluster.origin, cluster.application.signIn(), PEOPLE);

  await during(load, 'a process of the application is killed', () =>
    cluster.application.processes[0]!.kill(),
  );
  check('no request failed for good when a process was killed', told.at(-1)!.givenUp === 0);

  const first = await cluster.primary();
  const second = otherOf(cluster, first);
  await cluster.hasStandby(second);
  await during(load, 'the primary is killed', async () => {
    await first.kill();
    await until(`${second.name} leads`, () => second.is('primary'));
  });
  if (!isShort) {
    await during(load, 'the old primary comes back', async () => {
      first.startAgain();
      await cluster.hasStandby(first);
    });
    check('the old primary follows the new one', (await first.is('replica')) && (await second.is('primary')));
    await during(load, 'the primary is cut off', async () => {
      second.cutOff();
      await until(`${first.name} leads`, () => first.is('primary'));
    });
    check('the primary that was cut off leads no more', !(await second.is('primary')));
    await during(load, 'it is brought back', async () => {
      second.bringBack();
      await cluster.hasStandby(second);
    });
    check('it follows the new primary', await second.is('replica'));
    await during(load, 'the pooler is killed', () => cluster.pooler.kill());
  }

  await load.end();
  const { answered, lost, doubled } = await count(cluster.databaseUrl(), load, since);
  check(`no answered entry is lost: ${lost} of ${answered}`, lost === 0 && answered > 0);
  check(`no entry stands twice: ${doubled}`, doubled === 0);
  await bringBackFromArchive(cluster, load, since);
}

/** Somebody destroys the records while nothing fails: a standby destroys them too, and the archive has the moment before. */
async function bringBackFromArchive(cluster: Cluster, load: Load, since: Date): Promise<void> {
  const url = cluster.databaseUrl();
  const [{ now } = { now: new Date() }] = await ask<{ now: Date }>(url, 'select clock_timestamp() as now');
  await sleep(1_000);
  await ask(url, 'drop table records cascade');
  const [{ segment } = { segment: '' }] = await ask<{ segment: string }>(
    url,
    'select pg_walfile_name(pg_switch_wal()) as segment',
  );
  await until('what was destroyed is in the archive', async () => {
    const [row] = await ask<{ is: boolean }>(
      url,
      `select last_archived_wal >= '${segment}' as is from pg_stat_archiver`,
    );
    return row?.is === true;
  });
  const begun = Date.now();
  const restored = await cluster.restored(now);
  try {
    const { answered, lost, doubled } = await count(restored.url, load, since);
    const seconds = ((Date.now() - begun) / 1000).toFixed(0);
    check(
      `records that were destroyed are restored to the moment before in ${seconds} s: ${lost} of ${answered} lost`,
      lost === 0 && doubled === 0 && answered > 0,
    );
  } finally {
    await restored.stop();
  }
}

function report(): void {
  console.log('\n| what failed | longest time without an answered entry | answered | repeated | given up |');
  console.log('| --- | --- | --- | --- | --- |');
  for (const { fault, longestGapMs, answered, repeated, givenUp } of told)
    console.log(
      `| ${fault} | ${(longestGapMs / 1000).toFixed(1)} s | ${answered} | ${repeated} | ${givenUp} |`,
    );
}

rmSync(folder, { recursive: true, force: true });
const [port] = await freePorts(1);
const cluster = await Cluster.start(folder, port!, console.log);
try {
  await run(cluster);
} finally {
  await cluster.stop();
}
report();
if (failed === 0) rmSync(folder, { recursive: true, force: true });
else console.log(`The logs are in ${folder}.`);
process.exit(failed === 0 ? 0 : 1);
