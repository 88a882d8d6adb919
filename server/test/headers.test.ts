import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express from 'express';
import request from 'supertest';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { appPage } from '../src/http/app-page.ts';
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
  expect(policy).not.toMatch(/unsafe-|https?:|\*/);
});

test('a page’s own styles are applied by their digest, and no others', async () => {
  const { text, headers } = await request(plain.express).get('/api/docs');
  const [, css] = /<style>([^]*?)<\/style>/.exec(text)!;
  const digest = createHash('sha256').update(css!).digest('base64');
  expect(headers['content-security-policy']).toContain(`style-src 'self' 'sha256-${digest}';`);
  // As attributes they would need more than that.
  expect(text).not.toContain('style="');
});

test('the application’s page has a nonce of its own each time, in its policy and its text', async () => {
  const webDir = mkdtempSync(join(tmpdir(), 'karyotome-web-'));
  const page = '<meta property="csp-nonce" nonce="{{nonce}}"><link rel="stylesheet" nonce="{{nonce}}">';
  writeFileSync(join(webDir, 'index.html'), page);
  const app = express().get('/{*path}', appPage(webDir));
  const nonces = await Promise.all(
    ['/today', '/index.html'].map(async (path) => {
      const { text, headers } = await request(app).get(path);
      const [, nonce] = /style-src 'self' 'nonce-([\w+/=]{24})';/.exec(headers['content-security-policy']!)!;
      expect(text).toBe(page.replaceAll('{{nonce}}', nonce!));
      expect(headers['cache-control']).toBe('no-cache');
      return nonce;
    }),
  );
  expect(new Set(nonces).size).toBe(2);
  rmSync(webDir, { recursive: true });
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

test('what a request holds is not sent back, by whatever method', async () => {
  for (const path of ['/', '/api/v1/session', '/api/docs']) {
    const answer = await request(plain.express).trace(path).set('X-Secret', 'told-to-nobody');
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.text ?? '').not.toContain('told-to-nobody');
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
  const byTls = await secure.anonymous.post('/session', session, { 'X-Forwarded-Proto': 'https' });
  const [cookie] = byTls.headers['set-cookie'] as unknown as string[];
  expect(cookie!.split('; ').filter((part) => !part.startsWith('Expires'))).toEqual([
    expect.stringMatching(/^__Host-karyotome=s%3A/),
    'Path=/',
    'HttpOnly',
    'Secure',
    'SameSite=Lax',
  ]);
});
