import { afterAll, afterEach, beforeAll, describe, expect, test, vi } from 'vitest';
import { raw } from './hostile/raw-request.ts';
import { listening, PASSWORD, startTestApp, type TestApp } from './test-app.ts';

let app: TestApp;
let server: Awaited<ReturnType<typeof listening>>;
let origin: string;
beforeAll(async () => {
  app = await startTestApp();
  server = await listening(app.express);
  ({ origin } = server);
});
afterAll(async () => {
  await server.close();
  await app.close();
});
afterEach(() => vi.useRealTimers());

const json = { 'Content-Type': 'application/json' };

describe('how often strangers may ask', () => {
  const strangersAt = async (
    path: string,
    times: number,
  ): Promise<{ status: number; wait: string | null }[]> => {
    const answers = [];
    for (let i = 0; i < times; i++) {
      const { status, headers } = await fetch(`${origin}/api/v1${path}`);
      answers.push({ status, wait: headers.get('Retry-After') });
    }
    return answers;
  };

  test('a calendar that does not exist: sixty times a minute, then 429 with the seconds to wait', async () => {
    const answers = await strangersAt(`/calendar/${'x'.repeat(32)}.ics`, 62);
    expect(answers.slice(0, 60).every(({ status }) => status === 404)).toBe(true);
    expect(answers.at(-1)!.status).toBe(429);
    expect(Number(answers.at(-1)!.wait)).toBeGreaterThan(0);
    expect(Number(answers.at(-1)!.wait)).toBeLessThanOrEqual(60);
    // It is counted in the database, and no secret stands there.
    const [rows] = await app.database.sequelize.query('select key, points from rate_limits');
    expect(JSON.stringify(rows)).not.toContain('xxxx');
    expect(rows.length).toBeGreaterThan(0);
    // Another target from the same address: what counts is the address.
    expect((await strangersAt(`/calendar/${'y'.repeat(32)}.ics`, 1))[0]!.status).toBe(429);
  });

  test('a header does not make another address of one, since no proxy was named', async () => {
    const answer = await fetch(`${origin}/api/v1/calendar/${'z'.repeat(32)}.ics`, {
      headers: { 'X-Forwarded-For': '203.0.113.7' },
    });
    expect(answer.status).toBe(429);
  });

  test('failed sign-ins: the address is told to wait, and the right password does not help it', async () => {
    const email = await app.newAccount('Guessed');
    const attempt = (password: string) =>
      raw(origin, 'POST', '/api/v1/session', json, JSON.stringify({ email, password }));
    const statuses = [];
    for (let i = 0; i < 7; i++) statuses.push((await attempt('wrong-password')).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429, 429]);
    expect((await attempt(PASSWORD)).status).toBe(429);
  });
});
