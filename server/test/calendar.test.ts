import ICAL from 'ical.js';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { breederOf } from './breeder.ts';
import { ago, TODAY } from './days.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
const { created, animal } = breederOf(() => owner);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

describe('the calendar', () => {
  beforeAll(async () => {
    const dam = await animal('D-1', 'female', 'het clown', 1800);
    const sire = await animal('S-1', 'male', 'clown', 900);
    const introduced = { damId: dam, sireId: sire, on: ago(90) };
    const { pairingId } = await created<{ pairingId: string }>('/season/introductions', introduced);
    // An incubator that tells nothing is a task of today.
    const limits = { setC: 31.4, lowC: 30.5, highC: 32.2, lowHumidity: 80, silentAfterHours: 6 };
    const { id: incubatorId } = await created('/incubators', { name: 'Box', ...limits, sensor: 'none' });
    await created('/clutches', { pairingId, laidOn: ago(35), eggs: 5, slugs: 1, incubatorId });
  });

  test('is a feed that others can read, until it is revoked', async () => {
    const { id, path } = await created<{ id: string; path: string }>('/calendar-feeds', { name: 'Phone' });
    const feed = path.replace('/api/v1', '');
    const response = await app.anonymous.get(feed);
    expect(response.headers['content-type']).toContain('text/calendar');
    const calendar = new ICAL.Component(ICAL.parse(response.text) as unknown[]);
    expect(calendar.getFirstPropertyValue('version')).toBe('2.0');
    const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    expect(events.length).toBeGreaterThan(0);
    // RFC 5545, 3.6.1 and 3.8.2.2: all-day events end on the day after their last, and every UID is used once.
    for (const event of events) {
      expect(event.startDate.isDate).toBe(true);
      expect(event.endDate.compare(event.startDate)).toBe(1);
    }
    expect(new Set(events.map(({ uid }) => uid)).size).toBe(events.length);
    const today = events.find(({ summary }) => /^\d+ tasks?$/.test(summary))!;
    expect(today.startDate.toString()).toBe(TODAY);
    // RFC 5545, 3.1: lines of at most 75 octets.
    for (const line of response.text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    // Nothing secret of it is told again, nor lies in the database.
    const { body } = await owner.get('/calendar-feeds');
    expect(body).toMatchObject({ items: [{ id, name: 'Phone', by: 'Tester' }] });
    const secret = /([^/.]+)\.ics$/.exec(path)![1]!;
    expect(JSON.stringify(body)).not.toContain(secret);
    const [kept] = await app.database.sequelize.query(
      `select f::text as text from calendar_feeds f union all select w::text from idempotent_writes w`,
    );
    expect(JSON.stringify(kept)).not.toContain(secret);
    expect((await owner.delete(`/calendar-feeds/${id}`)).status).toBe(204);
    expect((await app.anonymous.get(feed)).status).toBe(404);
    expect((await app.anonymous.get('/calendar/x.ics')).status).toBe(404);
    expect((await owner.get('/calendar-feeds')).body).toEqual({ items: [], next: null, total: 0 });
  });
});
