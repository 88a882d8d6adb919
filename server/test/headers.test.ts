import { afterAll, beforeAll, expect, test } from 'vitest';
import { PASSWORD, startTestApp, type TestApp } from './test-app.ts';

/* What every answer tells the browser about itself (OWASP Secure Headers Project). */

let plain: TestApp;
let secure: TestApp;
beforeAll(async () => {
  [plain, secure] = await Promise.all([startTestApp(), startTestApp({ behindTls: true })]);
});
afterAll(() => Promise.all([plain.close(), secure.close()]));

test('nothing foreign is loaded or run, and no page may hold ours', async () => {
  const { headers } = await plain.owner.get('/session');
  const policy = headers['content-security-policy'] as string;
  for (const rule of [
    "default-src 'self'",
    "script-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
  ])
    expect(policy.split(';').map((one) => one.trim())).toContain(rule);
  expect(policy).not.toMatch(/unsafe-eval|script-src[^;]*unsafe-inline|https?:|\*/);
});

test('what is private is kept nowhere, read as what it says, and told to no other site', async () => {
  for (const path of ['/session', '/animals', '/members', '/history', '/openapi.json']) {
    const { headers } = await plain.owner.get(path);
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['referrer-policy']).toBe('no-referrer');
    expect(headers['x-powered-by']).toBeUndefined();
    expect(headers['access-control-allow-origin']).toBeUndefined();
    if (path !== '/openapi.json') expect(headers['cache-control']).toContain('no-store');
  }
});

test('behind TLS, browsers come by TLS alone and send the session by it alone', async () => {
  expect((await plain.owner.get('/session')).headers['strict-transport-security']).toBeUndefined();
  const { headers } = await secure.anonymous.get('/health');
  expect(headers['strict-transport-security']).toMatch(/max-age=\d{8}/);
  const session = { email: await secure.newAccount('Reedwater'), password: PASSWORD };
  const answer = await secure.anonymous.post('/session', session);
  expect(answer.status).toBe(201);
  // Over a plain connection it is not sent at all.
  expect(answer.headers['set-cookie']).toBeUndefined();
});
