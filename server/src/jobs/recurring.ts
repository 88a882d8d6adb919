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

/**
 * Takes part in the recurring tasks: each is queued in the database and done by one of the processes, on whatever machine. All
 * are asked for at once, too, so that what fell due while no process ran is done now.
 *
 * @param url - of the database, or of its pooler
 * @returns ends it, after what it is doing
 */
export async function startRecurring(
  { sequelize, onFault }: Database,
  url: string,
  tasks: readonly RecurringTask[],
): Promise<() => Promise<void>> {
  const boss = new PgBoss({ connectionString: url, schema: SCHEMA, max: CONNECTIONS });
  boss.on('error', onFault);
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
    // Where the database goes away meanwhile, the clock asks for it: no reason to end a process that serves.
    await boss.send(name, {}, ONCE).catch(onFault);
  }
  return () => boss.stop({ graceful: true, wait: true, timeout: STOP_MS });
}
