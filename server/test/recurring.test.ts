import { afterAll, beforeAll, expect, test } from 'vitest';
import { startRecurring } from '../src/jobs/recurring.ts';
import { startTestApp, type TestApp } from './test-app.ts';

/* Recurring work is begun by every process at once, on a database that may know none of it yet. */

let app: TestApp;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());

const PROCESSES = 5;
const NAMES = ['one', 'two', 'three', 'four', 'five', 'six'];

test('processes that start at once on a new database neither wait for one another crosswise nor leave work undone', async () => {
  const done = new Set<string>();
  const tasks = NAMES.map((name) => ({
    name,
    cron: '0 0 1 1 *',
    run: async () => void done.add(name),
  }));
  const ends = Array.from({ length: PROCESSES }, () => startRecurring(app.database, app.databaseUrl, tasks));
  await expect.poll(() => [...done].toSorted(), { timeout: 60_000 }).toEqual(NAMES.toSorted());
  await Promise.all(ends.map((end) => end()));
  expect(app.faults).toEqual([]);
});

test('a database that is away while it begins is asked again until it answers', async () => {
  const faults: unknown[] = [];
  let isAway = true;
  const { sequelize } = app.database;
  const transaction = sequelize.transaction.bind(sequelize) as (work: unknown) => Promise<unknown>;
  const database = {
    ...app.database,
    onFault: (error: unknown) => void faults.push(error),
    sequelize: Object.create(sequelize, {
      transaction: {
        value: (work: unknown) => {
          if (!isAway) return transaction(work);
          isAway = false;
          return Promise.reject(new Error('the connection ended'));
        },
      },
    }) as typeof sequelize,
  };
  let done = 0;
  const end = startRecurring(database, app.databaseUrl, [
    { name: 'again', cron: '0 0 1 1 *', run: async () => void done++ },
  ]);
  await expect.poll(() => done, { timeout: 60_000 }).toBe(1);
  expect(faults).toHaveLength(1);
  await end();
});
