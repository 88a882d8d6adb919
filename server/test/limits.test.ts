import http from 'node:http';
import net from 'node:net';
import { gzipSync } from 'node:zlib';
import { MOST_DEPTH, MOST_IMPORT_COLUMNS, MOST_IMPORT_ROWS } from '@karyotome/contract';
import { afterAll, afterEach, beforeAll, describe, expect, test, vi } from 'vitest';
import { anIncubator } from './hostile/farm.ts';
import { raw, signIn } from './hostile/raw-request.ts';
import { fieldsOf, listening, PASSWORD, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* One request must not stop the others: what a request may ask of the server, and how long it may take over it. */

let app: TestApp;
let owner: TestClient;
let server: Awaited<ReturnType<typeof listening>>;
let origin: string;
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  server = await listening(app.express);
  ({ origin } = server);
});
afterAll(async () => {
  await server.close();
  await app.close();
});
afterEach(() => vi.useRealTimers());

const json = { 'Content-Type': 'application/json' };
describe('size and shape', () => {
  test.each([
    ['POST', '/session', 4],
    ['POST', '/animals', 100],
    ['PUT', '/settings', 100],
    ['POST', '/rounds/entries', 1024],
  ])('%s %s takes %i KiB, and says so', async (method, path, kib) => {
    const { headers } = await signIn(origin, await app.newAccount('Limits'), PASSWORD);
    const body = JSON.stringify({ a: 'x'.repeat(kib * 1024) });
    const announced = await raw(origin, method, `/api/v1${path}`, { ...headers, ...json }, body);
    expect(announced.status).toBe(413);
    expect(announced.text).toContain(kib === 1024 ? 'at most 1 MiB' : `at most ${kib} KiB`);
    // Without a length it is counted as it comes, and unpacked it counts in full.
    const squeezed = gzipSync(body);
    const packed = { ...headers, ...json, 'Content-Encoding': 'gzip' };
    expect((await raw(origin, method, `/api/v1${path}`, packed, squeezed)).status).toBe(413);
  });

  test('who is nobody is told so before what they send is read', async () => {
    const body = JSON.stringify({ a: 'x'.repeat(90_000) });
    expect((await raw(origin, 'POST', '/api/v1/animals', json, body)).status).toBe(401);
  });

  test('what is nested too deep, holds too much, or too many of one, is refused at its field', async () => {
    const deep = '{"a":'.repeat(MOST_DEPTH + 5) + '1' + '}'.repeat(MOST_DEPTH + 5);
    const { headers } = await signIn(origin, await app.newAccount('Deep'), PASSWORD);
    for (const more of [{}, { 'Idempotency-Key': 'a-key-of-its-own' }] as Record<string, string>[])
      for (const body of [deep, '{"a":['.repeat(10_000) + ']}'.repeat(10_000)]) {
        const answer = await raw(origin, 'POST', '/api/v1/animals', { ...headers, ...json, ...more }, body);
        expect(answer.status).toBe(422);
        expect(answer.text).toContain('too-deep');
      }
    const many = await owner.post('/animals', { number: '1', sex: 'male', note: Array(1_200).fill(0) });
    expect(fieldsOf(many)).toEqual(['note: holds more than 1000 elements']);
    const keys = Object.fromEntries(Array.from({ length: 1_100 }, (_, i) => [`k${i}`, 1]));
    expect(fieldsOf(await owner.post('/animals', keys))).toEqual(['body: holds more than 1000 fields']);
  });

  test.each(['a\0b', '\ud800', 'x\udfff'])(
    'text that cannot be stored is refused at its field: %j',
    async (bad) => {
      const body = { number: 'T-1', sex: 'male', note: bad };
      expect(fieldsOf(await owner.post('/animals', body))).toEqual([
        'note: holds characters that cannot be stored',
      ]);
      const key = await owner.post('/animals', { number: 'T-1', sex: 'male', [bad]: 1 });
      expect(key.status).toBe(422);
      expect(fieldsOf(key)[0]).toContain('is a name with characters that cannot be stored');
      expect((await owner.get(`/animals?x=${encodeURIComponent('\0')}`)).status).toBe(422);
      expect((await owner.get('/animals/%00')).status).toBe(404);
    },
  );

  test.each([
    '[0b1d2c3e-1111-4111-8111-111111111111]',
    '(0b1d2c3e-1111-4111-8111-111111111111)',
    '{0b1d2c3e-1111-4111-8111-111111111111}',
    '0b1d2c3e111141118111111111111111',
    '0b:1d:2c:3e:11:11:41:11:81:11:11:11:11:11:11:11',
  ])('%s is no id', async (damId) => {
    const refused = await owner.post('/animals', { number: 'T-2', sex: 'male', damId });
    expect(fieldsOf(refused)).toEqual(['damId: must be the id of a record']);
    expect((await owner.get(`/animals/${encodeURIComponent(damId)}`)).status).toBe(404);
  });

  test('an id in capitals is the same id (RFC 9562)', async () => {
    const { id } = (await owner.post('/animals', { number: 'T-3', sex: 'female' })).body as { id: string };
    expect((await owner.get(`/animals/${id.toUpperCase()}`)).status).toBe(200);
    const young = await owner.post('/animals', { number: 'T-4', sex: 'male', damId: id.toUpperCase() });
    expect(young.status).toBe(201);
  });

  test.each([
    '2026-05-14T10:00:00+16:00',
    '0000-01-01T00:00:00Z',
    '2026-05-14T10:00:00',
    '2026-02-30T10:00:00Z',
  ])('%s is no moment', async (at) => {
    const { id } = (await owner.post('/incubators', anIncubator(`Box ${at}`))).body as { id: string };
    const reading = await owner.post(`/incubators/${id}/readings`, { at, celsius: 31 });
    expect(fieldsOf(reading)[0]).toContain('at: must be a moment');
  });

  test('words that every object knows are no words of the trade', async () => {
    const response = await owner.post('/animals', {
      number: 'T-5',
      sex: 'male',
      genes: 'constructor Pastel',
    });
    expect(fieldsOf(response)).toEqual(['genes: “constructor” is not a known gene']);
  });
});

describe('limits of a file, each by its name', () => {
  const brought = (text: string) => owner.upload('/imports', 'text/csv', Buffer.from(text));

  test('rows, columns and cells', async () => {
    const header = 'number,sex';
    expect(fieldsOf(await brought(`${header}\n${'a,male\n'.repeat(MOST_IMPORT_ROWS + 1)}`))).toEqual([
      'file: holds more than 50000 rows: split it',
    ]);
    const wide = Array.from({ length: MOST_IMPORT_COLUMNS }, (_, i) => `c${i}`).join(',');
    expect(fieldsOf(await brought(`${header},${wide}\n1,male\n`))).toEqual([
      'file: has 62 columns: at most 60',
    ]);
    const { id } = (await brought(`number,sex,note\n1,male,${'x'.repeat(2_500)}\n`)).body as { id: string };
    expect(JSON.stringify((await owner.get(`/imports/${id}`)).body)).toContain(
      'is too long: at most 2000 characters',
    );
    expect(fieldsOf(await brought(`${header}\na\0,male\n`))).toEqual([
      'file: holds characters that cannot be stored',
    ]);
  });

  test('a generation under another, five thousand deep, is read', async () => {
    const rows = Array.from(
      { length: 4_999 },
      (_, i) =>
        `g${i},${i % 2 ? 'male' : 'female'},${i % 2 ? `g${i - 1}` : ''},${i > 0 && i % 2 === 0 ? `g${i - 1}` : ''}`,
    );
    const { id } = (await brought(`number,sex,dam,sire\n${rows.toReversed().join('\n')}\n`)).body as {
      id: string;
    };
    expect((await owner.get(`/imports/${id}`)).body).toMatchObject({ good: 4_999, bad: 0 });
  });
});

describe('a long piece of work', () => {
  test('says how far it is, to whoever asked for it alone, and can be given up', async () => {
    const { headers } = await signIn(origin, await app.newAccount('Jobs'), PASSWORD);
    const job = '0b1d2c3e-1111-4111-8111-222222222222';
    const rows = Array.from(
      { length: 20_000 },
      (_, i) => `x${i},male,${'unknown'.repeat(5)}${i} het ${'word'.repeat(4)}${i}`,
    );
    const brought = await fetch(`${origin}/api/v1/imports`, {
      method: 'POST',
      headers: { ...headers, 'Content-Type': 'text/csv' },
      body: `number,sex,genes\n${rows.join('\n')}\n`,
    });
    const { id } = (await brought.json()) as { id: string };
    const request = http.request(`${origin}/api/v1/imports/${id}`, {
      headers: { ...headers, 'Job-Id': job },
    });
    const ended = new Promise((resolve) => request.on('error', resolve));
    request.end();
    const about = async (asker: Record<string, string>): Promise<number> =>
      (await raw(origin, 'GET', `/api/v1/jobs/${job}`, asker, null)).status;
    await vi.waitFor(async () => expect(await about(headers)).toBe(200), { timeout: 10_000, interval: 5 });
    const stranger = await signIn(origin, await app.newAccount('Stranger'), PASSWORD);
    expect(await about(stranger.headers)).toBe(404);
    request.destroy();
    await ended;
    await vi.waitFor(async () => expect(await about(headers)).toBe(404), { timeout: 10_000 });
  });
});

describe('slow and broken uploads', () => {
  /** Speaks over a bare connection. */
  function connected(): Promise<{ socket: net.Socket; heard: () => string; closed: Promise<unknown> }> {
    return new Promise((resolve) => {
      let text = '';
      const socket = net.connect(Number(new URL(origin).port), '127.0.0.1', () =>
        resolve({ socket, heard: () => text, closed: new Promise((done) => socket.on('close', done)) }),
      );
      socket.on('data', (part) => (text += String(part)));
      socket.on('error', () => undefined);
    });
  }

  test('a form that dribbles in is ended and told so; others are answered meanwhile', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
    const { socket, heard, closed } = await connected();
    socket.write(
      'POST /api/v1/session HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 2000\r\n\r\n{"e',
    );
    await vi.waitFor(() => expect(vi.getTimerCount()).toBeGreaterThan(0));
    expect((await raw(origin, 'GET', '/api/v1/health', {}, null)).status).toBe(200);
    vi.advanceTimersByTime(31_000);
    await closed;
    expect(heard()).toContain('408');
    expect(heard()).toContain('urn:karyotome:problem:too-slow');
  });

  test('a photograph over a slow line goes on for as long as it moves', async () => {
    const { ask, headers } = await signIn(origin, await app.newAccount('Slow line'), PASSWORD);
    const { id } = (await ask('POST', '/animals', { number: 'S-1', sex: 'male' })).body as { id: string };
    const sharp = (await import('sharp')).default;
    const noise = Buffer.from(Array.from({ length: 300 * 300 * 3 }, (_, i) => (i * 7919) % 251));
    const picture = await sharp(noise, { raw: { width: 300, height: 300, channels: 3 } })
      .png({ compressionLevel: 0 })
      .toBuffer();
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
    const asked = new Promise<http.IncomingMessage>((resolve) => server.server.once('request', resolve));
    const { socket, heard } = await connected();
    const lines = Object.entries({
      ...headers,
      'Content-Type': 'image/png',
      'Content-Length': picture.length,
    });
    socket.write(
      `POST /api/v1/animals/${id}/pictures HTTP/1.1\r\nHost: x\r\n${lines.map(([name, value]) => `${name}: ${value}\r\n`).join('')}\r\n`,
    );
    let came = 0;
    const request = await asked;
    // Listening for data at once would start the stream before the server reads it.
    request.once('resume', () => request.on('data', (part: Buffer) => (came += part.length)));
    // 36 KiB in each half minute, for minutes.
    for (let at = 0; at < picture.length; at += 36_864) {
      const part = picture.subarray(at, at + 36_864);
      socket.write(part);
      while (came < at + part.length) await new Promise((resolve) => setImmediate(resolve));
      vi.advanceTimersByTime(30_000);
    }
    vi.useRealTimers();
    await vi.waitFor(() => expect(heard()).toContain('HTTP/1.1 201'), { timeout: 10_000 });
    socket.destroy();
  });

  test('a request that ends early harms nobody', async () => {
    const { socket, closed } = await connected();
    socket.write(
      'POST /api/v1/session HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{"email":',
    );
    await new Promise((resolve) => setTimeout(resolve, 50));
    socket.destroy();
    await closed;
    expect((await raw(origin, 'GET', '/api/v1/health', {}, null)).status).toBe(200);
    expect(app.faults).toEqual([]);
  });
});
