import type { Page, ClutchView, TodayView } from '@karyotome/contract';
import { SEASON_RULES } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { INCUBATOR, NOBODY, startWithClutch } from './one-clutch.ts';
import { ago, TODAY } from './days.ts';
import { createdBy, fieldsOf, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
let dam: string;
let sire: string;
let pairing: string;
let event: string;
let clutch: string;
let incubator: string;
let feed: string;

const created = createdBy(() => owner);
const clutchNow = async (): Promise<ClutchView> =>
  (await owner.get(`/clutches/${clutch}`)).body as ClutchView;

beforeAll(async () => {
  ({ app, dam, sire, pairing, event, clutch, incubator } = await startWithClutch());
  owner = app.owner;
  feed = (await created('/calendar-feeds', { name: 'Desk' }))['id']!;
});
afterAll(() => app.close());

/** Every write of the season, with a body that is good. */
const writes = (): { what: string; send: (who: TestClient) => Promise<{ status: number }> }[] => {
  const version = { 'If-Match': '"1"' };
  const eggs = [{ verdict: 'good', massG: 80, stuck: null, marked: true, x: 50, y: 50 }];
  return [
    { what: 'rules', send: (who) => who.put('/season/rules', SEASON_RULES, version) },
    {
      what: 'introduction',
      send: (who) => who.post('/season/introductions', { damId: dam, sireId: sire, on: TODAY }),
    },
    {
      what: 'event',
      send: (who) => who.post(`/pairings/${pairing}/events`, { kind: 'ovulation', on: ago(60) }),
    },
    {
      what: 'fathers',
      send: (who) =>
        who.put(`/pairings/${pairing}/sires`, { sires: [{ animalId: sire, weight: 1 }] }, version),
    },
    { what: 'taking back', send: (who) => who.post(`/pairing-events/${event}/void`, { reason: 'x' }) },
    {
      what: 'correction',
      send: (who) =>
        who.post(`/pairing-events/${event}/correct`, {
          kind: 'introduction',
          on: ago(91),
          sireId: sire,
          reason: 'x',
        }),
    },
    { what: 'clutch', send: (who) => who.patch(`/clutches/${clutch}`, { note: 'x' }, version) },
    { what: 'box', send: (who) => who.put(`/clutches/${clutch}/eggs`, { eggs }, version) },
    {
      what: 'eggs seen',
      send: (who) => who.post(`/clutches/${clutch}/egg-events`, { kind: 'check', on: TODAY, eggIds: null }),
    },
    { what: 'card', send: (who) => who.post(`/clutches/${clutch}/cards`) },
    { what: 'incubator', send: (who) => who.put(`/incubators/${incubator}`, INCUBATOR, version) },
    {
      what: 'reading',
      send: (who) =>
        who.post(`/incubators/${incubator}/readings`, { at: new Date().toISOString(), celsius: 31 }),
    },
    {
      what: 'logger file',
      send: (who) =>
        who.upload(
          `/incubators/${incubator}/readings/import`,
          'text/csv',
          Buffer.from(`time,temp\n${ago(3)} 10:00,31\n`),
        ),
    },
    { what: 'calendar address', send: (who) => who.delete(`/calendar-feeds/${feed}`) },
  ];
};

describe('who may', () => {
  test('a viewer of the collection looks at all of it, and writes none', async () => {
    const viewer = await app.newCollection('Looked at', 'viewer');
    for (const path of ['/season', '/incubators', '/hatch-rates', '/planner', '/calendar-feeds'])
      expect((await viewer.get(path)).status, path).toBe(200);
    for (const { what, send } of writes()) expect((await send(viewer)).status, what).toBe(403);
  });

  test('nobody else’s season can be reached by its ids', async () => {
    const stranger = await app.newCollection('Elsewhere');
    for (const { what, send } of writes().filter(({ what }) => what !== 'rules' && what !== 'introduction'))
      expect((await send(stranger)).status, what).toBe(404);
    const put = await stranger.post('/season/introductions', { damId: dam, sireId: sire, on: TODAY });
    expect(fieldsOf(put)).toEqual(['damId: names no animal of this collection']);
    expect((await clutchNow()).eggs).toHaveLength(3);
  });

  test('a keeper records, but the rules are the owner’s', async () => {
    const keeper = await app.newCollection('Kept', 'keeper');
    expect((await keeper.put('/season/rules', SEASON_RULES, { 'If-Match': '"1"' })).status).toBe(403);
    expect((await keeper.post('/incubators', INCUBATOR)).status).toBe(201);
  });

  test('without a session there is nothing to see', async () => {
    for (const path of ['/season', '/planner', `/clutches/${clutch}`, '/incubators'])
      expect((await app.anonymous.get(path)).status, path).toBe(401);
    expect((await app.anonymous.get('/calendar/guess.ics')).status).toBe(404);
    expect((await app.anonymous.get(`/calendar/${'a'.repeat(32)}.ics`)).status).toBe(404);
  });
});

describe('nothing twice, nothing by halves', () => {
  test('an act sent again with its key takes effect once', async () => {
    const key = { 'Idempotency-Key': '7c5f1a52-0d0f-4d9a-8a56-08d0b8f1c001' };
    const body = { kind: 'check', on: TODAY, eggIds: null, signs: ['veins'] };
    const [first, again] = await Promise.all([
      owner.post(`/clutches/${clutch}/egg-events`, body, key),
      owner.post(`/clutches/${clutch}/egg-events`, body, key),
    ]);
    expect(first.body).toEqual(again.body);
    expect((await clutchNow()).events.filter(({ signs }) => signs.includes('veins'))).toHaveLength(1);
  });

  test('updates need the version they are based on, and a stale one changes nothing', async () => {
    const { version } = await clutchNow();
    expect((await owner.patch(`/clutches/${clutch}`, { note: 'first' })).status).toBe(428);
    const at = { 'If-Match': `"${version}"` };
    expect((await owner.patch(`/clutches/${clutch}`, { note: 'first' }, at)).status).toBe(200);
    expect((await owner.patch(`/clutches/${clutch}`, { note: 'second' }, at)).status).toBe(412);
    expect((await clutchNow()).note).toBe('first');
  });

  test('of two eggs noted at once one is over: neither is noted', async () => {
    const eggs = (await clutchNow()).eggs.map(({ id }) => id);
    const note = (kind: string, eggIds: string[]) =>
      owner.post(`/clutches/${clutch}/egg-events`, { kind, on: TODAY, eggIds });
    expect((await note('removed', [eggs[0]!])).status).toBe(201);
    expect(fieldsOf(await note('pip', [eggs[1]!, eggs[0]!]))).toEqual([
      'eggIds.1: is egg 1, which is removed already: take that back first',
    ]);
    expect((await clutchNow()).eggs[1]!.state.stage).toBe('in-egg');
  });

  test('events are taken back all or none', async () => {
    const { events } = await clutchNow();
    const ids = [events[0]!.id, NOBODY];
    expect((await owner.post('/egg-events/void', { ids, reason: 'x' })).status).toBe(404);
    expect((await clutchNow()).events).toHaveLength(events.length);
  });

  test('an incubator that holds eggs and is silent stands on Today; without eggs it is quiet', async () => {
    const empty = (await created('/incubators', { ...INCUBATOR, name: 'Spare', silentAfterHours: 1 }))['id']!;
    const { version } = (
      (await owner.get('/incubators?limit=200')).body as Page<{ id: string; version: number }>
    ).items.find(({ id }) => id === incubator)!;
    await owner.put(
      `/incubators/${incubator}`,
      { ...INCUBATOR, silentAfterHours: 1 },
      { 'If-Match': `"${version}"` },
    );
    const { lines } = (await owner.get('/today')).body as TodayView;
    const climate = lines.filter(({ kind }) => kind === 'climate');
    expect(climate.map((line) => line.incubator!.id)).toEqual([incubator]);
    expect(climate[0]).toMatchObject({ code: 'silent', facts: { hours: null } });
    expect(empty).not.toBe(incubator);
  });
});
