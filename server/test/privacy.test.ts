import type { Page } from '@karyotome/contract';
import { existsSync } from 'node:fs';
import http from 'node:http';
import { join } from 'node:path';
import { pino } from 'pino';
import { DatabaseError } from 'sequelize';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { createApp } from '../src/app.ts';
import { readConfig } from '../src/config.ts';
import { forLog } from '../src/db/faults.ts';
import { withoutSecret } from '../src/http/log.ts';
import { raw, signIn } from './hostile/raw-request.ts';
import { listening, PASSWORD, startTestApp, type TestApp } from './test-app.ts';
import { racksOf } from './wholes.ts';

/* What is private stays so: in caches, in streams, in logs, on public pages. */

let app: TestApp;
let server: Awaited<ReturnType<typeof listening>>;
let closeLogged: () => Promise<void>;
let origin: string;
const lines: string[] = [];
beforeAll(async () => {
  app = await startTestApp();
  // The same application, with a log that is kept.
  const config = readConfig({
    DATABASE_URL: app.databaseUrl,
    KARYOTOME_DATA: app.dataDir,
    SIGN_IN_ATTEMPTS: '1000',
    TRUSTED_PROXIES: 'loopback',
  });
  const logger = pino({ level: 'debug' }, { write: (line: string) => void lines.push(line) });
  const logged = createApp(app.database, app.files, config, logger);
  server = await listening(logged.express);
  ({ origin } = server);
  closeLogged = () => logged.close();
});
afterAll(async () => {
  await server.close();
  await closeLogged();
  await app.close();
});

describe('answers', () => {
  test('of the collection are kept by no cache', async () => {
    for (const path of ['/animals', '/today', '/session', '/rounds', '/planner'])
      expect((await app.owner.get(path)).headers['cache-control'], path).toBe('no-store');
    const made = await app.owner.post('/animals', { number: 'C-1', sex: 'male', genes: 'Pastel' });
    expect(made.headers['cache-control']).toBe('no-store');
    const feed = (await app.owner.post('/calendar-feeds', { name: 'Phone' })).body as { path: string };
    const calendar = await app.anonymous.get(feed.path.replace('/api/v1', ''));
    expect(calendar.headers['cache-control']).toBe('no-store');
  });

  test('signing out takes along what the browser kept of them', async () => {
    const client = await app.newCollection('Leaving');
    const gone = await client.delete('/session');
    expect(gone.headers['clear-site-data']).toBe('"cache"');
    expect((await client.get('/animals')).status).toBe(401);
  });
});

test('a stream of changes ends with its session, and tells of two in one tub', async () => {
  const { ask, headers } = await signIn(origin, await app.newAccount('Streams'), PASSWORD);
  let heard = '';
  let isOver = false;
  http.get(`${origin}/api/v1/changes`, { headers }, (response) => {
    response.on('data', (part) => (heard += String(part)));
    response.on('close', () => (isOver = true));
  });
  await vi.waitFor(() => expect(heard).toContain(': watching'));
  const [ladder] = ((await ask('GET', '/ladders?limit=200')).body as Page<{ id: string }>).items;
  const rack = { room: 'R', name: 'Left', levels: 1, tubsPerLevel: 1, ladderId: ladder!.id, stepPosition: 0 };
  await ask('POST', '/racks', rack);
  const [rackOf] = await racksOf((path) => ask('GET', path));
  for (const number of ['S-1', 'S-2'])
    await ask('POST', '/animals', { number, sex: 'male', tubId: rackOf!.tubs[0]!.id });
  await vi.waitFor(() => expect(heard).toContain('event: notice'));
  expect(heard).toContain('{"code":"tub-shared","facts":{"tub":"Left 1-1","numbers":["S-2","S-1"]}}');
  expect((await ask('DELETE', '/session')).status).toBe(204);
  await vi.waitFor(() => expect(isOver).toBe(true));
});

test('a page is told what parts others changed, and not of its own changes', async () => {
  const { ask, headers } = await signIn(origin, await app.newAccount('Pages'), PASSWORD);
  const heard = { mine: '', other: '' };
  for (const page of ['mine', 'other'] as const)
    http.get(`${origin}/api/v1/changes?page=${page}`, { headers }, (response) =>
      response.on('data', (part) => (heard[page] += String(part))),
    );
  await vi.waitFor(() => expect([heard.mine, heard.other].join()).toMatch(/watching[^]*watching/));
  const ladder = { name: 'Tall', steps: [{ name: 'Only', minG: 0, maxG: null, inside: '40 x 25 x 12 cm' }] };
  const made = await ask('POST', '/ladders', ladder, { 'Page-Id': 'mine' });
  expect(made.status, JSON.stringify(made.body)).toBe(201);
  await vi.waitFor(() => expect(heard.other).toContain('data: {"tags":["enclosures"]}'));
  expect(heard.mine).not.toContain('event: change');
  await ask('POST', '/ladders', { ...ladder, name: 'Taller' }, { 'Page-Id': 'other' });
  await vi.waitFor(() => expect(heard.mine).toContain('data: {"tags":["enclosures"]}'));
});

describe('the log', () => {
  test('holds neither secret addresses, nor notes, nor values, nor cookies', async () => {
    const { ask } = await signIn(origin, await app.newAccount('Logged'), PASSWORD);
    const secret = 'AbCdEfGhIjKlMnOpQrStUvWxYz012345';
    await raw(origin, 'GET', `/api/v1/calendar/${secret}.ics`, {}, null);
    await raw(origin, 'GET', `/api/v1/opinion-links/${secret}`, {}, null);
    await raw(origin, 'GET', `/p/${secret}?x=${secret}`, {}, null);
    await ask('POST', '/animals', { number: 'L-1', sex: 'male', note: 'a private note' });
    await ask('POST', '/animals', { number: 'L-1', sex: 'male', note: 'a private note' });
    await raw(
      origin,
      'POST',
      '/api/v1/session',
      { 'Content-Type': 'application/json' },
      '{"email":"who@example.test","password":"my-password"}',
    );
    const all = lines.join('\n');
    expect(all).toContain('/api/v1/calendar/…');
    for (const word of [secret, 'a private note', 'my-password', 'who@example.test', 'karyotome=s'])
      expect(all, word).not.toContain(word);
  });

  test('of an address without a secret is that address, without its parameters', () => {
    expect(withoutSecret('/api/v1/animals/1?x=2')).toBe('/api/v1/animals/1');
    expect(withoutSecret('/api/v1/public/slug/pictures/1')).toBe('/api/v1/public/…/pictures/1');
    expect(withoutSecret('/opinion/secret')).toBe('/opinion/…');
    expect(withoutSecret('/h/secret')).toBe('/h/…');
  });

  test('of what the database refused tells the code, and no words of it', () => {
    const parent = Object.assign(new Error('Key (number)=(F-01) already exists.'), {
      code: '23505',
      constraint: 'animals_number',
      sql: "insert into animals values ('F-01')",
    });
    const told = JSON.stringify(forLog(new DatabaseError(parent as never)));
    expect(told).toContain('23505');
    expect(told).not.toContain('F-01');
  });
});

test('behind a proxy that is named, the client’s address is the one it tells', async () => {
  const path = `/api/v1/calendar/${'q'.repeat(32)}.ics`;
  const asked = async (from: string): Promise<number> =>
    (await raw(origin, 'GET', path, { 'X-Forwarded-For': from }, null)).status;
  for (let i = 0; i < 31; i++) await asked('198.51.100.1');
  for (let i = 0; i < 29; i++) await asked('198.51.100.2');
  // Sixty in all: the target is asked for too often, though neither address has reached its own limit.
  expect(await asked('198.51.100.3')).toBe(429);
});

describe('the first start', () => {
  test('makes a secret of sessions, and makes it anew where a power cut left it empty', () => {
    const read = () => readConfig({ DATABASE_URL: 'x', KARYOTOME_DATA: app.dataDir }).sessionSecret;
    const first = read();
    expect(first).toHaveLength(64);
    expect(read()).toBe(first);
    expect(existsSync(join(app.dataDir, 'session-secret'))).toBe(true);
  });
});

test('collections of the same name that are made at once get addresses of their own', async () => {
  await Promise.all(Array.from({ length: 4 }, () => app.newCollection('Twin Hollow')));
  const found = await app.database.models.collections.findAll({ where: { name: 'Twin Hollow' } });
  const names = found.map((row) => row.get().pageName);
  expect(new Set(names).size).toBe(4);
  expect(names).toContain('twin-hollow');
});
