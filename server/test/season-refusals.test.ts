import type { SeasonBoardView } from '@karyotome/contract';
import { addDays, SEASON_RULES } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { INCUBATOR, NOBODY, startWithClutch } from './one-clutch.ts';
import { ago, TODAY } from './days.ts';
import { fieldsOf, type TestApp, type TestClient } from './test-app.ts';

/* The edges of the season: who may write, what is refused and where, and that nothing is done twice or by halves. */

let app: TestApp;
let owner: TestClient;
let dam: string;
let sire: string;
let pairing: string;
let clutch: string;
let incubator: string;

beforeAll(async () => {
  ({ app, dam, sire, pairing, clutch, incubator } = await startWithClutch());
  owner = app.owner;
});
afterAll(() => app.close());

describe('bad input is named by its field', () => {
  const id = () => ({ d: dam, s: sire, p: pairing, c: clutch, i: incubator });
  test.each<[string, () => Promise<Parameters<typeof fieldsOf>[0]>, string[]]>([
    [
      'a female put to a female',
      () => owner.post('/season/introductions', { damId: id().d, sireId: id().d, on: TODAY }),
      ['sireId: must be a male'],
    ],
    [
      'a day to come',
      () => owner.post('/season/introductions', { damId: id().d, sireId: id().s, on: addDays(TODAY, 3) }),
      ['on: lies in the future'],
    ],
    [
      'a kind that is none',
      () => owner.post(`/pairings/${id().p}/events`, { kind: 'kiss', on: TODAY }),
      ['kind: must be one of introduction, lock, separation, ovulation, pre-lay-shed'],
    ],
    [
      'an event after the eggs',
      () => owner.post(`/pairings/${id().p}/events`, { kind: 'ovulation', on: TODAY }),
      [`on: lies after the eggs, laid on ${ago(30)}`],
    ],
    [
      'the same father twice',
      () =>
        owner.put(
          `/pairings/${id().p}/sires`,
          {
            sires: [
              { animalId: id().s, weight: 1 },
              { animalId: id().s, weight: 2 },
            ],
          },
          { 'If-Match': '"1"' },
        ),
      ['sires.1: '],
    ],
    [
      'an egg heavier than an egg',
      () =>
        owner.put(
          `/clutches/${id().c}/eggs`,
          { eggs: [{ verdict: 'good', massG: 900, stuck: null, marked: false, x: 50, y: 50 }] },
          { 'If-Match': '"1"' },
        ),
      ['eggs.0.massG: must be at most 300'],
    ],
    [
      'no egg at all',
      () => owner.put(`/clutches/${id().c}/eggs`, { eggs: [] }, { 'If-Match': '"1"' }),
      ['eggs: '],
    ],
    [
      'a pip of the whole clutch',
      () => owner.post(`/clutches/${id().c}/egg-events`, { kind: 'pip', on: TODAY, eggIds: null }),
      ['eggIds: '],
    ],
    [
      'a look before there were eggs',
      () => owner.post(`/clutches/${id().c}/egg-events`, { kind: 'check', on: ago(31), eggIds: null }),
      [`on: lies before the lay date, ${ago(30)}`],
    ],
    [
      'an egg of another clutch',
      () => owner.post(`/clutches/${id().c}/egg-events`, { kind: 'pip', on: TODAY, eggIds: [NOBODY] }),
      ['eggIds.0: names no egg of this clutch'],
    ],
    [
      'a lay date before the pairing',
      () => owner.patch(`/clutches/${id().c}`, { laidOn: ago(100) }, { 'If-Match': '"1"' }),
      [`laidOn: lies before the pairing began, ${ago(90)}`],
    ],
    [
      'an incubator that is none',
      () => owner.patch(`/clutches/${id().c}`, { incubatorId: NOBODY }, { 'If-Match': '"1"' }),
      ['incubatorId: names no incubator of this collection'],
    ],
    [
      'limits the wrong way round',
      () => owner.post('/incubators', { ...INCUBATOR, lowC: 33, sensor: 'crystal ball' }),
      [
        'lowC: must be less than the upper limit',
        'sensor: must be one of none, simulated, simulated-failing',
      ],
    ],
    [
      'a day that no calendar has',
      () => owner.post(`/incubators/${id().i}/readings`, { at: '2026-02-30T10:00:00Z', celsius: 31 }),
      ['at: must be a moment, written like 2026-05-14T21:30:00+02:00'],
    ],
    ['an address for nobody', () => owner.post('/calendar-feeds', { name: '' }), ['name: is empty']],
  ])('%s', async (_what, send, expected) => {
    const response = await send();
    expect(response.status, JSON.stringify(response.body)).toBe(422);
    const fields = fieldsOf(response);
    expect(fields).toHaveLength(expected.length);
    expected.forEach((start, i) => expect(fields[i]).toContain(start));
  });

  test('rules: each with its bounds, all faults at once', async () => {
    const { rulesVersion } = (await owner.get('/season')).body as SeasonBoardView;
    const bad = {
      ...SEASON_RULES,
      maleLoad: 0,
      storedSpermShare: 0.9,
      cutting: 'always',
      seasonFromMonth: 13,
    };
    const response = await owner.put('/season/rules', bad, { 'If-Match': `"${rulesVersion}"` });
    expect(fieldsOf(response).map((field) => field.split(':')[0])).toEqual([
      'maleLoad',
      'storedSpermShare',
      'seasonFromMonth',
      'cutting',
    ]);
  });
});
