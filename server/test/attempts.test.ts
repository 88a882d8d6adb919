import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { backgroundEnded } from '../src/background.ts';
import { PASSWORD, startTestApp, type TestApp } from './test-app.ts';

/* Whoever guesses passwords waits longer each time, and the owners are told. */

let app: TestApp;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(() => app.database.sequelize.query('delete from rate_limits'));

/** As if the wait were over; what was counted stays. */
const waited = () => app.database.sequelize.query("delete from rate_limits where key like '%-wait:%'");

async function attempt(
  email: string,
  password = 'not the right one',
): Promise<{ status: number; waitS: number }> {
  const { status, headers } = await app.anonymous.post('/session', { email, password });
  return { status, waitS: Number((headers as Record<string, string>)['retry-after'] ?? 0) };
}

test('each failure too many doubles the wait, up to an hour, from whatever account', async () => {
  const emails = await Promise.all(['One', 'Two'].map((name) => app.newAccount(name)));
  for (let i = 0; i < 5; i++) expect((await attempt(emails[i % 2]!)).status).toBe(401);
  const waits: number[] = [];
  for (let i = 0; i < 9; i++) {
    const { status, waitS } = await attempt(emails[0]!);
    expect(status).toBe(429);
    waits.push(waitS);
    await waited();
    expect((await attempt(emails[1]!)).status).toBe(401);
  }
  const expected = [30, 60, 120, 240, 480, 960, 1920, 3600, 3600];
  for (const [i, wait] of waits.entries()) {
    expect(wait).toBeGreaterThan(expected[i]! - 20);
    expect(wait).toBeLessThanOrEqual(expected[i]!);
  }
});

test('an account waits whatever address is used, a quarter of an hour at most, and the right password forgives', async () => {
  const email = await app.newAccount('Three');
  const noAddress = () =>
    app.database.sequelize.query("delete from rate_limits where key like 'sign-in-by%'");
  for (let i = 0; i < 30; i++) {
    expect((await attempt(email)).status).toBe(401);
    await noAddress();
  }
  const { status, waitS } = await attempt(email, PASSWORD);
  expect([status, waitS > 0 && waitS <= 30]).toEqual([429, true]);
  await waited();
  expect((await attempt(email, PASSWORD)).status).toBe(201);
  for (let i = 0; i < 4; i++) expect((await attempt(email)).status).toBe(401);
});

test('the owners get one letter a day of it, and an address that nobody has tells nobody', async () => {
  const email = await app.newAccount('Four');
  const letters = async (): Promise<{ to: string; subject: string; state: string }[]> => {
    const [rows] = await app.database.sequelize.query(
      `select to_address as "to", subject, state from letters where kind = 'sign-ins-failed'`,
    );
    return rows as { to: string; subject: string; state: string }[];
  };
  await app.database.sequelize.query('delete from letters');
  for (let i = 0; i < 7; i++) {
    await attempt('nobody@example.test');
    await waited();
  }
  expect(await letters()).toEqual([]);
  for (let i = 0; i < 7; i++) {
    await attempt(email);
    await waited();
  }
  await backgroundEnded();
  expect(await letters()).toEqual([{ to: email, subject: 'Failed sign-ins for Tester', state: 'waiting' }]);
});
