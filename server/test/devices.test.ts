import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { AnimalView, NewToken, RoomClimateView } from '@karyotome/contract';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { ago, TODAY } from './days.ts';
import { anIncubator, aRoom } from './hostile/farm.ts';
import { createdBy, listening, maker, startTestApp, type TestApp } from './test-app.ts';

/* The simulated sensor and scale, as processes of their own that sign in with a token. */

const SCRIPT = fileURLToPath(new URL('../../scripts/device.ts', import.meta.url));
let app: TestApp;
let server: Awaited<ReturnType<typeof listening>>;
let token: string;
beforeAll(async () => {
  app = await startTestApp();
  server = await listening(app.express);
  ({ token } = (await app.owner.post('/account/tokens', { name: 'Shelf', scope: 'record', days: 1 }))
    .body as NewToken);
});
afterAll(async () => {
  await server.close();
  await app.close();
});

const made = createdBy(() => app.owner);
function device(...args: string[]): Promise<{ code: number | null; told: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', SCRIPT, ...args], {
    env: { ...process.env, KARYOTOME_ADDRESS: server.origin, KARYOTOME_TOKEN: token },
  });
  let told = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (part: Buffer) => (told += String(part)));
  return new Promise((resolve) => child.on('close', (code) => resolve({ code, told })));
}

test('the sensor sends a reading of an incubator', async () => {
  const { id } = await made('/incubators', anIncubator('Shelf'));
  expect(await device('sensor', '--incubator', 'Shelf')).toMatchObject({ code: 0 });
  const [rows] = await app.database.sequelize.query(
    `select source, celsius from readings where place_id = '${id}'`,
  );
  expect(rows).toHaveLength(1);
  expect((rows as { celsius: number }[])[0]!.celsius).toBeGreaterThan(30);
  const wrong = await device('sensor', '--incubator', 'Attic');
  expect(wrong).toMatchObject({ code: 2 });
  expect(wrong.told).toContain('No incubator is called Attic: there are Shelf');
});

test('the sensor sends a reading of a room', async () => {
  await made('/rooms', aRoom('Snake room'));
  expect(await device('sensor', '--room', 'Snake room')).toMatchObject({ code: 0 });
  const { items } = (await app.owner.get('/rooms')).body as { items: RoomClimateView[] };
  expect(items[0]!.last!.celsius).toBeCloseTo(31.5, 0);
  expect(await device('sensor', '--room', 'Shelf')).toMatchObject({ code: 2 });
});

test('the scale records a weight of today, under the name of whoever made its token', async () => {
  const id = await maker(() => app.owner, ago).animal('W-1', 'female', 'Pastel');
  expect(await device('scale', '--animal', 'W-1', '--grams', '1712')).toMatchObject({ code: 0 });
  const { records } = (await app.owner.get(`/animals/${id}`)).body as AnimalView;
  expect(records[0]).toMatchObject({ kind: 'weight', on: TODAY, body: { massG: 1712 }, author: 'Tester' });
  const refused = await device('scale', '--animal', 'W-1', '--grams', 'heavy');
  expect(refused).toMatchObject({ code: 2 });
  token = 'nothing';
  expect((await device('scale', '--animal', 'W-1', '--grams', '1700')).told).toContain('401');
});
