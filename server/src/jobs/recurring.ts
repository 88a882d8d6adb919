import { setTimeout } from 'node:timers/promises';
import PgBoss from 'pg-boss';
import { locked } from '../db/locked.ts';
import type { Database } from '../db/work.ts';

/** Something that is done over and over, once for all processes on the database. */
export interface RecurringTask {
  readonly name: string;
  /** Minute, hour, day of the month, month, day of the week, in UTC. */
  readonly cron: string;
  readonly run: () => Promise<void>;
}

const SCHEMA = 'jobs';
/** Whoever has nothing to do asks for it so often. */
const ASK_EVERY_S = 2;
const STOP_MS = 5_000;
/** One that hangs, or that a killed process took with it, is done by another process after so long; twice does no harm. */
const LONGEST_S = 600;
const ONCE = { expireInSeconds: LONGEST_S, retryLimit: 0 };
const CONNECTIONS = 2;
/** Any number: one process at a time makes the queues, since each is a table that others would wait for crosswise. */
const LOCK = 20_261_129;

/** A database that goes away while this begins is asked again after so long. */
const BEGIN_AGAIN_MS = 2_000;

/**
 * Takes part in the recurring tasks: each is queued in the database and done by one of the processes, on whatever machine. All
 * are asked for at once, too, so that what fell due while no process ran is done now. It begins in the background and tries
 * until it has begun: a database that goes away meanwhile is no reason to end a process that serves.
 *
 * @param url - of the database, or of its pooler
 * @returns ends it, after what it is doing
 */
export function startRecurring(
  database: Database,
  url: string,
  tasks: readonly RecurringTask[],
): () => Promise<void> {
  const ended = new AbortController();
  const begun = beginUntil(database, url, tasks, ended.signal);
  return async () => {
    ended.abort();
    await (await begun)?.stop({ graceful: true, wait: true, timeout: STOP_MS });
  };
}

async function beginUntil(
  database: Database,
  url: string,
  tasks: readonly RecurringTask[],
  ended: AbortSignal,
): Promise<PgBoss | null> {
  while (!ended.aborted) {
    const boss = new PgBoss({ connectionString: url, schema: SCHEMA, max: CONNECTIONS });
    boss.on('error', database.onFault);
    try {
      await begin(boss, database, tasks);
      return boss;
    } catch (error) {
      database.onFault(error);
      await boss.stop({ graceful: false }).catch(database.onFault);
      await setTimeout(BEGIN_AGAIN_MS, undefined, { signal: ended }).catch(() => undefined);
    }
  }
  return null;
}

async function begin(
  boss: PgBoss,
  { sequelize, onFault }: Database,
  tasks: readonly RecurringTask[],
): Promise<void> {
  await locked(sequelize, LOCK, async () => {
    await boss.start();
    for (const { name, cron } of tasks) {
      // One that waits and one that runs: more of the same would do the same again.
      await boss.createQueue(name, { name, policy: 'stately' });
      await boss.schedule(name, cron, {}, ONCE);
    }
  });
  for (const { name, run } of tasks) {
    await boss.work(name, { pollingIntervalSeconds: ASK_EVERY_S }, () => run().catch(onFault));
    await boss.send(name, {}, ONCE);
  }
}
