import { randomUUID } from 'node:crypto';
import type {
  Page,
  AnimalView,
  IncubatorView,
  RoundResult,
  SetUpProposal,
  TodayView,
} from '@karyotome/contract';
import { addDays, clockIn, dayIn, startOfDay } from '@karyotome/core';
import { afterAll, afterEach, beforeAll, describe, expect, test, vi } from 'vitest';
import { anIncubator } from './hostile/farm.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';
import { roundOf } from './wholes.ts';

/*
 * All days are the farm's, wherever the server stands and whatever a phone shows: at midnight, on days when clocks change, and
 * from UTC-10 to UTC+14. No clock decides but the one that is set here.
 */

/** A moment of its kind in a zone. */
type When = readonly [words: string, (zone: string) => number];
const MINUTE = 60_000;

const AROUND_MIDNIGHT: readonly When[] = [
  ['a minute before midnight', (zone) => startOfDay(zone, '2026-07-15') - MINUTE],
  ['a minute after midnight', (zone) => startOfDay(zone, '2026-07-15') + MINUTE],
  ['at noon', (zone) => startOfDay(zone, '2026-07-15') + 12 * 60 * MINUTE],
];
const CLOCKS_CHANGE: readonly When[] = [
  '2026-03-29',
  '2026-10-25',
  '2026-03-08',
  '2026-11-01',
  '2026-10-04',
].flatMap((day): When[] => [
  [`early on ${day}`, (zone) => startOfDay(zone, day) + MINUTE],
  [`late on ${day}`, (zone) => startOfDay(zone, addDays(day, 1)) - MINUTE],
]);

export function farmDayTests(zones: readonly string[]): void {
  let app: TestApp;
  let owner: TestClient;
  beforeAll(async () => {
    app = await startTestApp();
  });
  afterAll(() => app.close());
  afterEach(() => vi.useRealTimers());

  const set = (now: number): void => {
    vi.useFakeTimers({ toFake: ['Date'], now });
  };
  async function farmIn(zone: string): Promise<void> {
    owner = await app.newCollection(`Farm ${randomUUID().slice(0, 6)}`);
    const { collection } = (await owner.get('/session')).body as {
      collection: Record<string, unknown> & { version: number };
    };
    const { name, numberPattern, massUnit, temperatureUnit, ladderId, version } = collection;
    const changed = await owner.put(
      '/settings',
      { name, numberPattern, massUnit, temperatureUnit, ladderId, timeZone: zone },
      { 'If-Match': `"${version}"` },
    );
    expect(changed.status, JSON.stringify(changed.body)).toBe(200);
  }

  const cases = zones.flatMap((zone) =>
    [...AROUND_MIDNIGHT, ...CLOCKS_CHANGE].map(([words, at]) => [zone, words, at] as const),
  );
  describe.each(cases)('%s, %s', (zone, _words, at) => {
    test('what is done today counts as today, and tomorrow lies in the future', async () => {
      const now = at(zone);
      set(now);
      await farmIn(zone);
      const today = dayIn(zone, now);
      const tomorrow = addDays(today, 1);
      const { id } = (
        await owner.post('/animals', {
          number: 'Z-1',
          sex: 'female',
          hatchedOn: addDays(today, -300),
          massG: 200,
        })
      ).body as { id: string };
      expect(((await owner.get('/today')).body as TodayView).today).toBe(today);
      const meal = (on: string) => ({
        kind: 'feeding',
        on,
        body: { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true },
      });
      const future = await owner.post(`/animals/${id}/records`, meal(tomorrow));
      expect(fieldsOf(future)).toEqual(['on: lies in the future']);
      const entry = { key: randomUUID(), animalId: id, record: meal(today) };
      const late = { ...entry, key: randomUUID(), record: meal(tomorrow) };
      const sent = (await owner.post('/rounds/entries', { entries: [entry, late] })).body as {
        results: RoundResult[];
      };
      expect(sent.results.map(({ status }) => status)).toEqual(['kept', 'refused']);
      // The round knows it as done today, and nothing is due.
      const round = await roundOf((path) => owner.get(path));
      expect(round.today).toBe(today);
      const [animal] = round.racks.flatMap(({ tubs }) => tubs.flatMap(({ animals }) => animals));
      expect(animal!.done.map(({ kind }) => kind)).toContain('feeding');
      const { lines } = (await owner.get('/today')).body as TodayView;
      expect(lines.filter(({ kind }) => kind === 'meal')).toEqual([]);
      // Hatched today, wherever the server stands.
      const young = await owner.post('/animals', { number: 'Z-2', sex: 'male', hatchedOn: today });
      expect(young.status).toBe(201);
      const { records } = (await owner.get(`/animals/${id}`)).body as AnimalView;
      expect(records.find(({ kind }) => kind === 'weight')!.on).toBe(today);
    });

    test('a logger’s last hour is taken, and its readings stand on the farm’s day', async () => {
      const now = at(zone);
      set(now);
      await farmIn(zone);
      const { id } = (await owner.post('/incubators', anIncubator('Box'))).body as { id: string };
      const shown = [120, 60, 0].map((minutes) => clockIn(zone, now - minutes * MINUTE));
      const csv = Buffer.from(`time,temperature\n${shown.map((time) => `${time},31.2\n`).join('')}`);
      const taken = await owner.upload(`/incubators/${id}/readings/import`, 'text/csv', csv);
      expect(taken.status, JSON.stringify(taken.body)).toBe(201);
      const kept = taken.body as { from: string; to: string; taken: number };
      expect(Math.abs(Date.parse(kept.to) - now)).toBeLessThan(MINUTE);
      // The hour that comes twice may make two lines one moment apart, never one of two.
      expect(kept.taken).toBe(3);
      const incubators = ((await owner.get('/incubators?limit=200')).body as Page<IncubatorView>).items;
      expect(incubators[0]!.last!.celsius).toBe(31.2);
    });
  });

  test('a phone far from the farm: what it enters by the farm’s day is done there', async () => {
    const now = Date.parse('2026-07-15T11:00:00Z');
    for (const zone of ['Pacific/Honolulu', 'Pacific/Kiritimati']) {
      set(now);
      await farmIn(zone);
      const session = (await owner.get('/session')).body as { collection: { farmZone: string } };
      expect(session.collection.farmZone).toBe(zone);
      expect(((await owner.get('/today')).body as TodayView).today).toBe(dayIn(zone, now));
      vi.useRealTimers();
    }
  });

  test('a proposal for setting up, a label and a calendar speak of the farm’s day', async () => {
    const zone = 'Pacific/Kiritimati';
    const now = startOfDay(zone, '2026-07-15') + MINUTE;
    set(now);
    await farmIn(zone);
    const today = dayIn(zone, now);
    const animal = async (number: string, sex: string): Promise<string> =>
      ((await owner.post('/animals', { number, sex, genes: 'Pastel' })).body as { id: string }).id;
    const [damId, sireId] = [await animal('P-1', 'female'), await animal('P-2', 'male')];
    const { pairingId } = (
      await owner.post('/season/introductions', { damId, sireId, on: addDays(today, -100) })
    ).body as { pairingId: string };
    const { id: clutch } = (
      await owner.post('/clutches', { pairingId, laidOn: addDays(today, -57), eggs: 2, slugs: 0 })
    ).body as { id: string };
    const { version } = (await owner.get(`/clutches/${clutch}`)).body as { version: number };
    const hatched = await owner.post(
      `/clutches/${clutch}/hatchlings`,
      { hatchedOn: today, hatched: 2 },
      { 'If-Match': `"${version}"` },
    );
    expect(hatched.status, JSON.stringify(hatched.body)).toBe(201);
    const proposal = (await owner.get(`/clutches/${clutch}/set-up`)).body as SetUpProposal;
    expect(proposal.firstMealOn).toBe(addDays(today, 15));
    const feed = (await owner.post('/calendar-feeds', { name: 'Phone' })).body as { path: string };
    const calendar = await app.anonymous.get(feed.path.replace('/api/v1', ''));
    expect(calendar.text).toContain(`DTSTART;VALUE=DATE:${today.replaceAll('-', '')}`);
  });
}
