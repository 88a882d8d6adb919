import { describe, expect, test } from 'vitest';
import { addDays } from '../calendar/days.ts';
import type { History } from '../husbandry/history.ts';
import { chanceAbove, meanOf } from '../numeric/whole-odds.ts';
import { forecastSeason, type SeasonEvent } from './forecast.ts';
import {
  femaleReadiness,
  maleReadiness,
  type MaleUse,
  type Readiness,
  type ReadinessReason,
} from './readiness.ts';
import { SEASON_RULES, seasonOf } from './rules.ts';
import { storedCandidates } from './stored-sperm.ts';
import { learnWaits } from './waits.ts';

const TODAY = '2026-02-20';
const ago = (days: number): string => addDays(TODAY, -days);
const event = (kind: SeasonEvent['kind'], days: number, sireId: string | null = null): SeasonEvent => ({
  id: `${kind}${days}`,
  kind,
  on: ago(days),
  sireId,
});
const waits = learnWaits([]);

// Waiting times: common practice, no source.
describe('the waiting times', () => {
  test('by default eggs come about 30 days after the pre-lay shed, hardly ever before 25 or after 50', () => {
    const { odds } = waits.shedToEggs;
    expect(meanOf(odds)).toBeGreaterThan(29);
    expect(meanOf(odds)).toBeLessThan(34);
    expect(1 - chanceAbove(odds, 24)).toBeLessThan(0.05);
    expect(chanceAbove(odds, 50)).toBeLessThan(0.03);
    // A female at day 36 worries nobody yet.
    expect(chanceAbove(odds, 36)).toBeGreaterThan(0.15);
  });

  test("become the keeper's own: forty clutches on day 40 outweigh the default", () => {
    const past = Array.from({ length: 40 }, () => ({
      ovulatedOn: null,
      shedOn: ago(40),
      laidOn: TODAY,
      pipDays: null,
    }));
    const own = learnWaits(past).shedToEggs;
    expect(own.observations).toBe(40);
    expect(meanOf(own.odds)).toBeGreaterThan(38);
    expect(learnWaits(past.slice(0, 1)).shedToEggs.observations).toBe(1);
  });

  test('a laying before its shed is a slip and counts for nothing', () => {
    const slip = { ovulatedOn: null, shedOn: TODAY, laidOn: ago(5), pipDays: null };
    expect(learnWaits([slip]).shedToEggs.observations).toBe(0);
  });
});

describe('the forecast of a season', () => {
  const forecast = (events: SeasonEvent[], laidOn: string | null = null) =>
    forecastSeason(events, laidOn, waits, TODAY);

  test('walks through the stages, whatever the order of entering', () => {
    expect(forecast([])).toMatchObject({ stage: 'open', since: null });
    expect(forecast([event('lock', 3, 'a'), event('introduction', 4, 'a')])).toMatchObject({
      stage: 'together',
      with: ['a'],
      locks: 1,
    });
    expect(forecast([event('introduction', 4, 'a'), event('separation', 2, 'a')])).toMatchObject({
      stage: 'apart',
      with: [],
    });
    // Out and in again on one day: he is with her.
    expect(
      forecast([event('introduction', 9, 'a'), event('separation', 4, 'a'), event('introduction', 2, 'b')])
        .with,
    ).toEqual(['b']);
    expect(forecast([event('ovulation', 5)]).expected.map(({ what }) => what)).toEqual([
      'pre-lay-shed',
      'eggs',
    ]);
    expect(forecast([event('ovulation', 30), event('pre-lay-shed', 10)]).stage).toBe('pre-lay');
    expect(forecast([event('pre-lay-shed', 30)], ago(1))).toMatchObject({ stage: 'laid', expected: [] });
  });

  test('day 36 after the pre-lay shed: the share still to come, and no expected day in the past', () => {
    const [eggs] = forecast([event('pre-lay-shed', 36)]).expected;
    expect(eggs!.day).toBe(36);
    expect(1 / eggs!.later).toBeGreaterThan(4.5);
    expect(1 / eggs!.later).toBeLessThan(5.5);
    expect(eggs!.from >= TODAY).toBe(true);
    expect(eggs!.from <= eggs!.middle && eggs!.middle <= eggs!.to).toBe(true);
    expect(forecast([event('pre-lay-shed', 2)]).expected[0]!.later).toBeGreaterThan(0.995);
    expect(forecast([event('pre-lay-shed', 90)]).expected[0]!.later).toBeLessThan(0.005);
  });
});

// Floors, loads and rests: common practice, no source.
describe('readiness', () => {
  const history = (more: Partial<History>): History => ({
    hatchedOn: ago(1200),
    weights: [{ id: 'w', on: ago(10), massG: 1620 }],
    feedings: [{ id: 'f', on: ago(6), taken: true }],
    sheds: [],
    moves: [],
    ...more,
  });
  const no = ({ reasons }: Readiness) =>
    reasons.filter(({ side }) => side === 'against').map(({ code, facts }) => ({ code, facts }));
  const female = (h: Partial<History>, laidOn: string | null = null) =>
    femaleReadiness(history(h), laidOn, SEASON_RULES, TODAY);
  const idle: MaleUse = { females: 0, locks: 0, lastLockOn: null, isOut: false };
  const male = (h: Partial<History>, use: Partial<MaleUse> = {}) =>
    maleReadiness(
      history({ weights: [{ id: 'w', on: ago(10), massG: 900 }], ...h }),
      { ...idle, ...use },
      SEASON_RULES,
      TODAY,
    );

  test('a grown female over the floor is ready, and says on which weight', () => {
    expect(female({})).toMatchObject({ ready: true, fastingDays: null });
    expect(female({}).reasons[0]!.records).toEqual(['w']);
  });

  const floor = { of: 'females', floorG: 1500, fromYears: null } as const;
  test.each<[string, Partial<History>, string | null, Pick<ReadinessReason, 'code' | 'facts'>]>([
    [
      'light',
      { weights: [{ id: 'w', on: ago(10), massG: 1400 }] },
      null,
      { code: 'under-floor', facts: { massG: 1400, floor } },
    ],
    [
      'young',
      { hatchedOn: ago(700) },
      null,
      { code: 'too-young', facts: { years: 700 / 365.25, fromYears: 2.5, sex: 'female' } },
    ],
    [
      'not weighed of late',
      { weights: [{ id: 'w', on: ago(90), massG: 1620 }] },
      null,
      { code: 'stale-mass', facts: { days: 90, staleDays: 60 } },
    ],
    ['never weighed', { weights: [] }, null, { code: 'never-weighed', facts: { floor } }],
    ['just laid', {}, ago(50), { code: 'laid-recently', facts: { days: 50, restDays: 120 } }],
    ['in shed', { sheds: [{ id: 's', on: ago(2), stage: 'blue' }] }, null, { code: 'in-shed', facts: {} }],
    [
      'not recovered',
      {
        weights: [
          { id: 'b', on: ago(300), massG: 2200 },
          { id: 'w', on: ago(10), massG: 1700 },
        ],
      },
      ago(200),
      { code: 'not-recovered', facts: { share: 1700 / 2200 } },
    ],
  ])('a female %s is not', (_, h, laidOn, reason) => {
    expect(no(female(h, laidOn))).toEqual([reason]);
  });

  test('an older female may be lighter', () => {
    const light = [{ id: 'w', on: ago(10), massG: 1400 }];
    expect(female({ weights: light, hatchedOn: ago(1800) }).ready).toBe(true);
  });

  test('a fast is said, and does not forbid', () => {
    const fasting = female({
      feedings: [
        { id: 'a', on: ago(60), taken: true },
        { id: 'b', on: ago(8), taken: false },
      ],
    });
    expect(fasting).toMatchObject({ ready: true, fastingDays: 60 });
  });

  test('a male rests after a lock, with a full load, and when he has lost too much', () => {
    expect(male({}).ready).toBe(true);
    expect(no(male({}, { lastLockOn: ago(1), locks: 1, females: 1 }))).toEqual([
      { code: 'locked-recently', facts: { days: 1, restDays: 3 } },
    ]);
    expect(no(male({}, { females: 5 }))).toEqual([
      { code: 'season-load-reached', facts: { females: 5, load: 5 } },
    ]);
    expect(
      no(
        male({
          weights: [
            { id: 'b', on: ago(200), massG: 1000 },
            { id: 'w', on: ago(10), massG: 800 },
          ],
        }),
      ),
    ).toEqual([{ code: 'lost-mass', facts: { share: expect.closeTo(0.2, 12) as number, limit: 0.15 } }]);
  });

  test('a season is named after the year of its eggs', () => {
    expect(seasonOf('2025-11-03', SEASON_RULES)).toBe(2026);
    expect(seasonOf('2026-04-03', SEASON_RULES)).toBe(2026);
  });
});

describe('stored sperm', () => {
  const present = [{ id: 'now', weight: 1 }];
  const rules = { storedSpermShare: 0.1, storedSpermDays: 540 };

  test('earlier mates together have the share that was set, the later ones more', () => {
    const stored = storedCandidates(
      [
        { id: 'late', lastWithOn: ago(100) },
        { id: 'early', lastWithOn: addDays(ago(100), -365) },
        { id: 'now', lastWithOn: ago(20) },
        { id: 'long ago', lastWithOn: ago(900) },
      ],
      present,
      rules,
      TODAY,
    );
    const total = stored.reduce((sum, { weight }) => sum + weight, 0);
    expect(total / (total + 1)).toBeCloseTo(0.1, 12);
    expect(stored.map(({ id }) => id)).toEqual(['late', 'early']);
    // A year is two halvings.
    expect(stored[0]!.weight / stored[1]!.weight).toBeCloseTo(4, 9);
  });

  test('a share of nothing leaves them out', () => {
    const earlier = [{ id: 'late', lastWithOn: ago(100) }];
    expect(storedCandidates(earlier, present, { ...rules, storedSpermShare: 0 }, TODAY)).toEqual([]);
  });
});
