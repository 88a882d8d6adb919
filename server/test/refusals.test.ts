import type { AnimalSummary, Page } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { fieldsOf, PASSWORD, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

const idOf = async (body: object): Promise<string> => {
  const response = await owner.post('/animals', body);
  expect(response.status, JSON.stringify(response.body)).toBe(201);
  return (response.body as { id: string }).id;
};
const countAnimals = async (): Promise<number> =>
  ((await owner.get('/animals?limit=200')).body as Page<unknown>).items.length;

describe('a list', () => {
  test('is paged, says its total, and refuses what it cannot be asked, by name', async () => {
    for (const n of [1, 2, 3]) await owner.post('/animals', { number: `P-${n}`, sex: 'male' });
    const first = (await owner.get('/animals?limit=2&sort=-number')).body as Page<AnimalSummary>;
    expect(first.items.map(({ number }) => number)).toEqual(['P-3', 'P-2']);
    const rest = (await owner.get(`/animals?sort=-number&after=${first.next}`)).body as Page<AnimalSummary>;
    expect(rest.items[0]!.number).toBe('P-1');
    expect([rest.next, first.total]).toEqual([null, rest.items.length + 2]);
    const wrong = await owner.get('/animals?limit=201&after=x&sort=weight&colour=red');
    expect(wrong.status).toBe(422);
    expect(fieldsOf(wrong).map((line) => line.split(':')[0])).toEqual(['limit', 'sort', 'colour']);
    expect(fieldsOf(await owner.get('/animals?after=x'))).toEqual(['after: is no cursor of this list']);
  });

  test('carries an ETag: what has not changed is not sent again', async () => {
    for (const path of ['/animals', '/planner', '/season']) {
      const { etag } = (await owner.get(path)).headers as { etag: string };
      const again = await app.owner.get(path, { 'If-None-Match': etag });
      expect([path, again.status]).toEqual([path, 304]);
    }
  });
});

describe('bad input', () => {
  test('is a problem document (RFC 9457) with every broken field, and writes nothing', async () => {
    const before = await countAnimals();
    const response = await owner.post('/animals', {
      sex: 'girl',
      massG: '70',
      hatchedOn: '2026-02-30',
      colour: 'x',
    });
    expect(response.status).toBe(422);
    expect(response.headers['content-type']).toContain('application/problem+json');
    expect(response.body).toMatchObject({
      type: 'urn:karyotome:problem:invalid',
      status: 422,
      title: expect.any(String),
    });
    expect((response.body as { errors: { field: string }[] }).errors.map((e) => e.field).toSorted()).toEqual([
      'colour',
      'hatchedOn',
      'massG',
      'number',
      'sex',
    ]);
    expect(await countAnimals()).toBe(before);
  });

  test('text beyond its field is refused at the field, and beyond any form by its size', async () => {
    const response = await owner.post('/animals', {
      number: 'big',
      sex: 'male',
      note: 'x'.repeat(50_000),
    });
    expect(response.status).toBe(422);
    expect(fieldsOf(response)).toEqual(['note: is too long: at most 2000 characters']);
    const larger = await owner.post('/animals', { number: 'big', sex: 'male', note: 'x'.repeat(5_000_000) });
    expect(larger.status).toBe(413);
    expect(fieldsOf(larger)).toEqual(['body: is too large: at most 100 KiB']);
  });

  test('a body beyond any field is too large, a broken one malformed; never a 5xx', async () => {
    const huge = await owner.upload(
      '/animals',
      'application/json',
      Buffer.from(`"${'x'.repeat(13_000_000)}"`),
    );
    expect(huge.status).toBe(413);
    const broken = await owner.upload('/animals', 'application/json', Buffer.from('{"number": '));
    expect(broken.status).toBe(400);
    expect(fieldsOf(broken)).toEqual(['body: is not valid JSON']);
  });

  test('an id that is no id is not found', async () => {
    expect((await owner.get('/animals/../../etc')).status).toBe(404);
    expect((await owner.get("/animals/1'; drop table animals")).status).toBe(404);
    expect((await owner.get('/animals/0e2c7c52-3f0a-4a53-9a57-5ec9a33d4a10')).status).toBe(404);
  });

  test('nobody is its own ancestor, and parents are older than their young', async () => {
    const grandma = await idOf({ number: 'G', sex: 'female', hatchedOn: '2018-06-01' });
    const mother = await idOf({ number: 'M', sex: 'female', hatchedOn: '2021-06-01', damId: grandma });
    const circle = await owner.patch(
      `/animals/${grandma}`,
      { damId: mother, hatchedOn: null },
      { 'If-Match': '"2"' },
    );
    expect(circle.status).toBe(422);
    expect(fieldsOf(circle)[0]).toContain('damId: would make the animal its own ancestor');
    const older = await owner.post('/animals', {
      number: 'O',
      sex: 'male',
      hatchedOn: '2017-01-01',
      damId: grandma,
    });
    expect(fieldsOf(older)[0]).toContain('damId: hatched on 2018-06-01, not before its young');
  });

  test('a recorded dam cannot be called male', async () => {
    const dam = await idOf({ number: 'Dam', sex: 'female' });
    await idOf({ number: 'Young', sex: 'unknown', damId: dam });
    const body = { sex: 'male', method: 'popped', sure: 'certain', by: 'Ida' };
    const response = await owner.post(`/animals/${dam}/records`, { kind: 'sex', on: machineToday(), body });
    expect(fieldsOf(response)).toEqual(['body.sex: cannot be male: Dam is recorded as a dam']);
  });

  test('a number is never given twice, even after its animal is deleted', async () => {
    const id = await idOf({ number: 'once', sex: 'male' });
    expect((await owner.post(`/animals/${id}/delete`, { reason: 'A slip' })).status).toBe(201);
    const again = await owner.post('/animals', { number: 'once', sex: 'male' });
    expect(again.status).toBe(409);
    expect(fieldsOf(again)).toEqual(['number: was used before; numbers are never reused']);
  });

  test('a ladder keeps the steps that racks stand for', async () => {
    const step = (name: string, minG: number, maxG: number | null) => ({ name, minG, maxG, inside: '' });
    const ladder = { name: 'Mine', steps: [step('A', 0, 300), step('B', 300, null)] };
    const { id } = (await owner.post('/ladders', ladder)).body as { id: string };
    await owner.post('/racks', {
      room: 'R',
      name: 'K',
      levels: 1,
      tubsPerLevel: 1,
      ladderId: id,
      stepPosition: 1,
    });
    const shorter = await owner.put(
      `/ladders/${id}`,
      { ...ladder, steps: [step('A', 0, null)] },
      { 'If-Match': '"1"' },
    );
    expect(fieldsOf(shorter)[0]).toContain('steps: needs at least 2');
    const longer = await owner.put(`/ladders/${id}`, { ...ladder, name: 'Ours' }, { 'If-Match': '"1"' });
    expect(longer.body).toMatchObject({ version: 2 });
  });
});

describe('writes', () => {
  test('with an idempotency key take effect once, however often and at once they are sent', async () => {
    const body = { number: 'idem', sex: 'male' };
    const key = { 'Idempotency-Key': 'the-same-key-1' };
    const answers = await Promise.all([1, 2, 3, 4].map(() => owner.post('/animals', body, key)));
    expect(answers.map((answer) => answer.status)).toEqual([201, 201, 201, 201]);
    expect(new Set(answers.map((answer) => (answer.body as { id: string }).id)).size).toBe(1);
    const other = await owner.post('/animals', { ...body, number: 'other' }, key);
    expect(other.status).toBe(409);
  });

  test('based on an old version change nothing', async () => {
    const id = await idOf({ number: 'stale', sex: 'unknown' });
    const change = (version: string) => owner.patch(`/animals/${id}`, { name: 'X' }, { 'If-Match': version });
    expect((await change('"1"')).status).toBe(200);
    expect((await change('"1"')).status).toBe(412);
    expect((await change('nonsense')).status).toBe(412);
    expect((await owner.patch(`/animals/${id}`, { name: 'X' })).status).toBe(428);
  });

  test('undone records are kept, and the animal is as before', async () => {
    const id = await idOf({ number: 'undo', sex: 'unknown' });
    const body = { sex: 'female', method: 'popped', sure: 'probable', by: 'Ida' };
    const sexed = await owner.post(`/animals/${id}/records`, { kind: 'sex', on: machineToday(), body });
    expect((await owner.get(`/animals/${id}`)).body).toMatchObject({ sex: 'female' });
    const record = (sexed.body as { id: string }).id;
    expect((await owner.post(`/records/${record}/void`, { reason: '' })).status).toBe(422);
    expect((await owner.post(`/records/${record}/void`, { reason: 'Undone' })).status).toBe(204);
    expect((await owner.post(`/records/${record}/void`, { reason: 'Undone' })).status).toBe(409);
    const page = (await owner.get(`/animals/${id}`)).body as {
      sex: string;
      records: { voided: object | null }[];
    };
    expect(page.sex).toBe('unknown');
    expect(page.records[0]!.voided).toMatchObject({ reason: 'Undone' });
  });
});

describe('who may', () => {
  test('nobody reads or writes without signing in, and not without the token', async () => {
    expect((await app.anonymous.get('/animals')).status).toBe(401);
    expect((await app.anonymous.post('/animals', { number: '1', sex: 'male' })).status).toBe(401);
    const forged = await owner.post('/animals', { number: '1', sex: 'male' }, { 'X-CSRF-Token': 'guess' });
    expect(forged.status).toBe(403);
    expect(forged.body).toMatchObject({ type: 'urn:karyotome:problem:stale-page' });
  });

  test('one collection never sees another', async () => {
    const id = await idOf({ number: 'mine', sex: 'female' });
    const stranger = await app.newCollection('Elsewhere');
    expect((await stranger.get(`/animals/${id}`)).status).toBe(404);
    expect((await stranger.delete(`/animals/${id}`)).status).toBe(404);
    const record = { kind: 'weight', on: machineToday(), body: { massG: 100 } };
    expect((await stranger.post(`/animals/${id}/records`, record)).status).toBe(404);
    const young = await stranger.post('/animals', { number: 'theirs', sex: 'male', damId: id });
    expect(fieldsOf(young)).toEqual(['damId: names no animal of this collection']);
    // The same number is free in another collection.
    expect((await stranger.post('/animals', { number: 'mine', sex: 'male' })).status).toBe(201);
  });

  test('a viewer looks, a keeper records, the owner manages', async () => {
    const viewer = await app.newCollection('Looked at', 'viewer');
    expect((await viewer.get('/animals')).status).toBe(200);
    expect((await viewer.post('/animals', { number: '1', sex: 'male' })).status).toBe(403);
    const keeper = await app.newCollection('Kept', 'keeper');
    expect((await keeper.post('/animals', { number: '1', sex: 'male' })).status).toBe(201);
    const settings = { name: 'X', numberPattern: 'running', massUnit: 'g', temperatureUnit: 'C' };
    expect((await keeper.put('/settings', settings, { 'If-Match': '"1"' })).status).toBe(403);
    expect((await owner.put('/settings', settings, { 'If-Match': '"1"' })).status).toBe(200);
  });

  test('guessing a password is stopped after a few tries', async () => {
    const guess = { email: 'nobody@example.test', password: PASSWORD };
    const statuses: number[] = [];
    const guessed = await startTestApp();
    for (let i = 0; i < 7; i++) statuses.push((await guessed.anonymous.post('/session', guess)).status);
    await guessed.close();
    expect(statuses.slice(0, 5)).toEqual([401, 401, 401, 401, 401]);
    expect(statuses.at(-1)).toBe(429);
  });
});

describe('numbers by the collection’s pattern', () => {
  test.each([
    ['running', undefined, ['0001', '0002']],
    ['free', ['Fern', 'Moss'], ['Fern', 'Moss']],
  ])('%s', async (numberPattern, numbers, expected) => {
    const client = await app.newCollection(`Pattern ${numberPattern}`);
    await client.put(
      '/settings',
      { name: 'P', numberPattern, massUnit: 'g', temperatureUnit: 'C' },
      { 'If-Match': '"1"' },
    );
    const add = async (number: string, sex: string) =>
      ((await client.post('/animals', { number, sex })).body as { id: string }).id;
    const [damId, animalId] = [await add('D', 'female'), await add('S', 'male')];
    const startedOn = addDays(machineToday(), -120);
    const pairing = await client.post('/pairings', {
      season: 2026,
      damId,
      sires: [{ animalId, weight: 1 }],
      startedOn,
    });
    const clutch = await client.post('/clutches', {
      pairingId: (pairing.body as { id: string }).id,
      laidOn: addDays(machineToday(), -70),
      eggs: 2,
    });
    const path = `/clutches/${(clutch.body as { id: string }).id}/hatchlings`;
    const hatched = { hatchedOn: addDays(machineToday(), -10), hatched: 2 };
    if (numbers) {
      const without = await client.post(path, hatched, { 'If-Match': '"1"' });
      expect(fieldsOf(without)[0]).toContain('numbers: is missing');
    }
    const response = await client.post(
      path,
      { ...hatched, ...(numbers ? { numbers } : {}) },
      { 'If-Match': '"1"' },
    );
    expect((response.body as { numbers: string[] }).numbers).toEqual(expected);
  });
});
