import net from 'node:net';
import { afterEach, beforeEach, expect, inject, test } from 'vitest';
import { Client, Pool } from '../src/db/client.ts';
import { connect } from '../src/db/connection.ts';
import { codeOf, isDatabaseAway } from '../src/db/faults.ts';

/* A connection that breaks, or cannot be made, is told by a code, whatever words the driver has for it. */

/** Stands between the program and the database, and can cut them off from one another. */
async function startBetween(): Promise<{
  url: string;
  cut: () => void;
  fallSilent: () => void;
  stop: () => Promise<void>;
}> {
  const database = new URL(inject('serverUrl'));
  const sockets = new Set<net.Socket>();
  let isSilent = false;
  const server = net.createServer((near) => {
    sockets.add(near);
    near.on('error', () => undefined);
    if (isSilent) return;
    const far = net.connect(Number(database.port), database.hostname);
    sockets.add(far);
    far.on('error', () => undefined);
    near.pipe(far).pipe(near);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const url = new URL(database);
  url.port = String((server.address() as net.AddressInfo).port);
  const cut = (): void => {
    for (const socket of sockets) socket.end();
  };
  return {
    url: url.href,
    cut,
    fallSilent: () => (isSilent = true),
    async stop() {
      for (const socket of sockets) socket.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

let between: Awaited<ReturnType<typeof startBetween>>;
beforeEach(async () => {
  between = await startBetween();
});
afterEach(() => between.stop());

const failure = (asked: Promise<unknown>): Promise<unknown> =>
  asked.then(
    () => expect.fail('It should have failed.'),
    (error: unknown) => error,
  );

test('a connection that breaks while it is used, and whatever is asked of it later', async () => {
  const client = new Client({ connectionString: between.url });
  client.on('error', () => undefined);
  await client.connect();
  const waiting = [failure(client.query('select pg_sleep(60)')), failure(client.query('select 1'))];
  const byCallback = new Promise((resolve) => client.query('select 1', (error: Error) => resolve(error)));
  between.cut();
  for (const error of [
    ...(await Promise.all(waiting)),
    await byCallback,
    await failure(client.query('select 1')),
  ]) {
    expect(codeOf(error)).toBe('08006');
    expect(isDatabaseAway(error)).toBe(true);
  }
});

test('a mistake in what is asked is no lost connection', async () => {
  const client = new Client({ connectionString: between.url });
  await client.connect();
  const circle: Record<string, unknown> = {};
  circle['self'] = circle;
  expect(codeOf(await failure(client.query('select $1::jsonb', [circle])))).toBeNull();
  expect(codeOf(await failure(client.query('select nothing')))).toBe('42703');
  expect((await client.query<{ n: number }>('select 1 as n')).rows).toEqual([{ n: 1 }]);
  await client.end();
});

test('a pool that finds nobody, in time or at all', async () => {
  const pool = new Pool({ connectionString: between.url, max: 1 });
  pool.on('error', () => undefined);
  const held = await pool.connect();
  // Only from here on: however slow the machine, the first one is there.
  Object.assign(pool.options, { connectionTimeoutMillis: 50 });
  expect(isDatabaseAway(await failure(pool.query('select 1')))).toBe(true);
  held.release(true);
  between.fallSilent();
  expect(isDatabaseAway(await failure(pool.query('select 1')))).toBe(true);
  await between.stop();
  expect(isDatabaseAway(await failure(pool.query('select 1')))).toBe(true);
  await pool.end();
});

test('a kept connection that is dead is replaced without anybody noticing, outside of a transaction', async () => {
  const sequelize = connect(between.url);
  await sequelize.query('select 1');
  between.cut();
  await expect(sequelize.query('select 1')).resolves.toBeDefined();
  const broken = await failure(
    sequelize.transaction(async (transaction) => {
      await sequelize.query('select 1', { transaction });
      between.cut();
      await sequelize.query('select 1', { transaction });
    }),
  );
  expect(isDatabaseAway(broken)).toBe(true);
  await sequelize.close();
});

test('several questions at once are answered each for itself, in one transaction too', async () => {
  const client = new Client({ connectionString: between.url });
  await client.connect();
  const same = { name: 'same', text: 'select $1::int as n' };
  const answers = await Promise.all(
    [1, 2, 3].map((n) => client.query<{ n: number }>({ ...same, values: [n] })),
  );
  expect(answers.map(({ rows }) => rows[0]!.n)).toEqual([1, 2, 3]);
  await client.query('begin');
  const [bad, after] = await Promise.allSettled([client.query('select nothing'), client.query('select 1')]);
  expect(codeOf((bad as PromiseRejectedResult).reason)).toBe('42703');
  // The transaction is over, and says so of all that was asked behind the mistake.
  expect(codeOf((after as PromiseRejectedResult).reason)).toBe('25P02');
  await client.query('rollback');
  await client.end();
});
