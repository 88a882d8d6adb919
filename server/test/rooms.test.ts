import type { HistoryLine, Page, RoomClimateView, TodayLine, TodayView } from '@karyotome/contract';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { now } from '../src/clock.ts';
import { readSensors } from '../src/domain/climate/sensor.ts';
import { breederOf } from './breeder.ts';
import { ago } from './days.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
const { created } = breederOf(() => owner);
const LIMITS = { lowC: 24, highC: 30, lowHumidity: 40, silentAfterHours: 6, sensor: 'none' };
let room: string;

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  room = (await created('/rooms', { name: 'Snake room', ...LIMITS })).id;
});
afterAll(() => app.close());

const rooms = async (who = owner): Promise<RoomClimateView[]> =>
  ((await who.get('/rooms')).body as Page<RoomClimateView>).items;
const minutesAgo = (minutes: number): string => new Date(now().getTime() - minutes * 60_000).toISOString();

test('a room is named once, within limits that do not cross, and has no setting', async () => {
  const again = await owner.post('/rooms', { name: 'Snake room', ...LIMITS });
  expect(fieldsOf(again)).toEqual(['name: is the name of another one']);
  const crossed = await owner.post('/rooms', { name: 'Other', ...LIMITS, lowC: 31 });
  expect(fieldsOf(crossed)).toEqual(['lowC: must be less than the upper limit']);
  const set = await owner.post('/rooms', { name: 'Other', ...LIMITS, setC: 27 });
  expect(fieldsOf(set)[0]).toContain('setC');
  // An incubator may be called the same: it stands elsewhere.
  await created('/incubators', { name: 'Snake room', setC: 31, ...LIMITS, highC: 33 });
  expect((await rooms()).map(({ name }) => name)).toEqual(['Snake room']);
});

test('out of its limits or silent, it stands on Today, with animals in it or none', async () => {
  const lines = async (): Promise<TodayLine[]> =>
    ((await owner.get('/today')).body as TodayView).lines.filter((line) => line.room !== null);
  expect((await lines()).map(({ code, room: of }) => [code, of!.name])).toEqual([['silent', 'Snake room']]);
  await created(`/rooms/${room}/readings`, { at: minutesAgo(2), celsius: 22.5, humidity: 35 });
  expect((await lines()).map(({ code }) => code).toSorted()).toEqual(['too-cold', 'too-dry']);
  await created(`/rooms/${room}/readings`, { at: minutesAgo(1), celsius: 27, humidity: 55 });
  expect(await lines()).toEqual([]);
  expect((await rooms())[0]!.last).toMatchObject({ celsius: 27, humidity: 55, source: 'hand' });
});

test('a logger’s file is read as for an incubator, and by the hour', async () => {
  const day = ago(1);
  const file = Buffer.from(`Time,Temp (°C),RH %\n${day} 08:00,26,50\n${day} 08:30,28,54\n`);
  const path = `/rooms/${room}/readings/import?timeZone=UTC`;
  expect((await owner.upload(path, 'text/csv', file)).body).toMatchObject({ taken: 2, known: 0 });
  expect((await owner.upload(path, 'text/csv', file)).body).toMatchObject({ taken: 0, known: 2 });
  const hour = (await rooms())[0]!.series.find(({ at }) =>
    new Date(at).toISOString().startsWith(`${day}T08`),
  );
  expect(hour).toMatchObject({ celsius: 27, low: 26, high: 28, humidity: 52 });
});

test('its simulated sensor speaks from when it is chosen', async () => {
  const [{ version }] = (await rooms()) as [RoomClimateView];
  const input = { name: 'Snake room', ...LIMITS, sensor: 'simulated' };
  const changed = await owner.put(`/rooms/${room}`, input, { 'If-Match': `"${version}"` });
  expect(changed.status).toBe(200);
  await readSensors(app.database, now());
  const [{ last, alarms }] = (await rooms()) as [RoomClimateView];
  expect(last).toMatchObject({ source: 'simulated' });
  // In the middle of its limits.
  expect(Math.abs(last!.celsius - 27)).toBeLessThan(0.5);
  expect(alarms).toEqual([]);
  const stale = await owner.put(`/rooms/${room}`, input, { 'If-Match': `"${version}"` });
  expect(stale.status).toBe(412);
});

test('incubators are no rooms, and clutches lie in incubators', async () => {
  const { id: incubator } = await created('/incubators', { name: 'Box', setC: 31, ...LIMITS, highC: 33 });
  const reading = { at: minutesAgo(1), celsius: 27 };
  expect((await owner.post(`/rooms/${incubator}/readings`, reading)).status).toBe(404);
  expect((await owner.post(`/incubators/${room}/readings`, reading)).status).toBe(404);
  expect(
    (await owner.put(`/rooms/${incubator}`, { name: 'X', ...LIMITS }, { 'If-Match': '"1"' })).status,
  ).toBe(404);
});

test('what is changed of it is in the history, and it is nobody else’s', async () => {
  const { items } = (await owner.get('/history?subject=incubator')).body as Page<HistoryLine>;
  expect(items.map(({ action }) => action)).toEqual(expect.arrayContaining(['added', 'changed']));
  const helper = await app.newCollection('Elsewhere');
  expect(await rooms(helper)).toEqual([]);
  expect((await helper.post(`/rooms/${room}/readings`, { at: minutesAgo(1), celsius: 27 })).status).toBe(404);
});
