import { describe, expect, test } from 'vitest';
import { forecastSeason } from '../breeding/forecast.ts';
import { learnWaits } from '../breeding/waits.ts';
import { SEASON_RULES } from '../breeding/rules.ts';
import { addDays, daysBetween } from '../calendar/days.ts';
import { climateAlarms, simulatedReading } from './climate.ts';
import { incubationClock, type Incubation } from './clock.ts';
import { eggState, type EggEvent } from './egg.ts';
import { hatchRates } from './hatch-rates.ts';
import { climateTasks, clutchTasks, seasonTasks } from './tasks.ts';
import { rateAt, referenceDays } from './thermal-time.ts';

const TODAY = '2026-06-30';
const ago = (days: number): string => addDays(TODAY, -days);

describe('thermal time, by hand', () => {
  test('a day at the reference is a day; 11.4 degrees over the base are worth one', () => {
    expect(rateAt(31.4)).toBe(1);
    expect(rateAt(25.7)).toBeCloseTo(0.5, 12);
    expect(rateAt(20)).toBe(0);
    expect(rateAt(15)).toBe(0);
    // Beyond the range nothing is promised: as at 33 degrees, 13 / 11.4.
    expect(rateAt(36)).toBeCloseTo(13 / 11.4, 12);
  });

  test('two measured days and three at the set temperature: 0.5 + 0.5 + 3', () => {
    const means = new Map([
      [0, 25.7],
      [3, 25.7],
    ]);
    expect(referenceDays(5, means, 31.4)).toBeCloseTo(4, 12);
  });
});

describe('the incubation clock', () => {
  const wait = learnWaits([]).eggsToPip;
  const clutch = (more: Partial<Incubation>): Incubation => ({
    laidOn: ago(40),
    setC: 31.4,
    means: new Map(),
    firstPipOn: null,
    checkedOn: [],
    ...more,
  });
  const clock = (more: Partial<Incubation>, rules: Partial<typeof SEASON_RULES> = {}) =>
    incubationClock(clutch(more), wait, { ...SEASON_RULES, ...rules }, TODAY);

  // Days 55 to 60 at 31.1 to 31.7 °C: common practice, no source.
  test.each([31.1, 31.4, 31.7])('at %s °C the first pip is expected on days 55 to 60', (setC) => {
    const { pip } = clock({ setC });
    expect(daysBetween(ago(40), pip!.middle)).toBeGreaterThanOrEqual(55);
    expect(daysBetween(ago(40), pip!.middle)).toBeLessThanOrEqual(60);
    expect(pip!.from < pip!.to).toBe(true);
  });

  test('cooler eggs pip later: ten cold days of half speed put it off by five', () => {
    const cold = new Map(Array.from({ length: 10 }, (_, day) => [day + 5, 25.7]));
    const late = daysBetween(clock({}).pip!.middle, clock({ means: cold }).pip!.middle);
    expect(late).toBe(5);
  });

  test('on day 57 it gives the share that pips later; once seen nothing is expected', () => {
    const { day, later } = clock({ laidOn: ago(57) }).pip!;
    expect(day).toBe(57);
    expect(later).toBeGreaterThan(0.4);
    expect(later).toBeLessThan(0.75);
    const seen = clock({ laidOn: ago(58), firstPipOn: ago(1) });
    expect(seen.pip).toBeNull();
    expect(seen.milestones.at(-1)).toMatchObject({ what: 'first-pip', day: 57, done: true });
  });

  // One to three days to absorb the yolk: common practice, no source.
  test('young leave the egg one to three days after the pip, expected or seen', () => {
    const { pip, out } = clock({});
    expect([daysBetween(pip!.from, out.from), daysBetween(pip!.to, out.to)]).toEqual([1, 3]);
    expect(clock({ firstPipOn: ago(1) }).out).toEqual({ from: ago(0), to: ago(-2) });
  });

  test('a check near its day is done', () => {
    const { milestones } = clock({ checkedOn: [ago(24), ago(6)] });
    expect(milestones.filter(({ done }) => done).map(({ day }) => day)).toEqual([15, 33]);
  });

  test('the three schools of cutting', () => {
    expect(clock({}, { cutting: 'never' }).cutOn).toBeNull();
    expect(clock({}, { cutting: 'unpipped-at-day', cutDay: 60 }).cutOn).toBe(addDays(ago(40), 60));
    expect(clock({}, { cutting: 'after-first-pip' }).cutOn).toBeNull();
    expect(clock({ firstPipOn: ago(1) }, { cutting: 'after-first-pip' }).cutOn).toBe(ago(1));
  });
});

describe('what a clutch asks for', () => {
  const wait = learnWaits([]).eggsToPip;
  const due = (day: number, more: Partial<Incubation> = {}, cutting: 'never' | 'unpipped-at-day' = 'never') =>
    clutchTasks(
      incubationClock(
        { laidOn: ago(day), setC: 31.4, means: new Map(), firstPipOn: null, checkedOn: [], ...more },
        wait,
        { cutting, cutDay: 60 },
        TODAY,
      ),
      TODAY,
    ).map(({ code, facts }) => [code, (facts as { day: number }).day]);

  // Days 15, 23, 33: common practice, no source.
  test('a look on days 15, 23 and 33, until it was done', () => {
    expect(due(15)).toEqual([['egg-check-due', 15]]);
    expect(due(20)).toEqual([]);
    expect(due(34)).toEqual([['egg-check-due', 34]]);
    expect(due(34, { checkedOn: [ago(1)] })).toEqual([]);
  });

  test('first pip when it is likely, and a cut by the keeper’s own protocol', () => {
    expect(due(57)[0]).toEqual(['first-pip-due', 57]);
    expect(due(61, {}, 'unpipped-at-day').at(-1)).toEqual(['cutting-due', 61]);
    expect(due(61)).toHaveLength(1);
    expect(due(58, { firstPipOn: ago(1) })).toEqual([['hatching', 58]]);
  });
});

describe('an egg', () => {
  const seen = (kind: EggEvent['kind'], days: number, more: Partial<EggEvent> = {}): EggEvent => ({
    id: `${kind}${days}`,
    kind,
    on: ago(days),
    eggId: 'e',
    signs: [],
    young: 1,
    ...more,
  });

  test('is what its events make it, whatever the order of entering', () => {
    expect(eggState('e', [])).toMatchObject({ stage: 'in-egg', since: null });
    const events = [seen('out', 1, { young: 2 }), seen('pip', 3), seen('cut', 3)];
    expect(eggState('e', events)).toMatchObject({ stage: 'out', young: 2, wasCut: true, since: ago(1) });
    expect(eggState('other', events).stage).toBe('in-egg');
    // On one day it pips and is left.
    expect(eggState('e', [seen('out', 1), seen('pip', 1)]).stage).toBe('out');
  });

  test('the last check counts; mould and a collapse ask for a second look, a dent does not', () => {
    const events = [
      seen('check', 9, { signs: ['mould'] }),
      seen('check', 2, { signs: ['veins', 'dent', 'collapse'] }),
    ];
    expect(eggState('e', events)).toMatchObject({ worries: ['collapse'], checkedOn: ago(2) });
  });
});

describe('the climate', () => {
  const limits = { lowC: 30.5, highC: 32.2, lowHumidity: 80, silentAfterHours: 6 };
  const now = Date.parse('2026-06-30T12:00:00Z');
  const codes = (celsius: number, humidity: number | null, hoursAgo = 0): string[] =>
    climateAlarms({ atMs: now - hoursAgo * 3_600_000, celsius, humidity }, limits, now).map(
      ({ code }) => code,
    );

  test('alarms by its limits, and when nobody speaks', () => {
    expect(codes(31.4, 90)).toEqual([]);
    expect(codes(32.2, null)).toEqual([]);
    expect(codes(32.3, 70)).toEqual(['too-warm', 'too-dry']);
    expect(codes(29, 90)).toEqual(['too-cold']);
    expect(codes(29, 90, 7)).toEqual(['silent']);
    expect(climateAlarms(null, limits, now)[0]).toEqual({ code: 'silent', facts: { hours: null } });
    expect(climateAlarms(null, { ...limits, silentAfterHours: null }, now)).toEqual([]);
  });

  test('the simulated sensor is steady near what is set, and cools like a box when the heater fails', () => {
    const hour = 3_600_000;
    const box = { setC: 31.4 };
    const steady = Array.from({ length: 500 }, (_, i) => simulatedReading(now + i * hour, box).celsius);
    expect(Math.max(...steady)).toBeLessThan(31.8);
    expect(Math.min(...steady)).toBeGreaterThan(31);
    expect(simulatedReading(now, box)).toEqual(simulatedReading(now, box));
    // Newton's law of cooling: after one time constant (4 h) 1/e of the difference to the room (23 °C) is left.
    const failed = simulatedReading(now, box, 'heater-fails', now - 4 * hour).celsius;
    expect(failed).toBeCloseTo(23 + (simulatedReading(now, box).celsius - 23) / Math.E, 1);
  });
});

test('a season asks to look for eggs from the earliest likely day on, and an incubator when it is wrong', () => {
  const season = (days: number) =>
    seasonTasks(
      forecastSeason(
        [{ id: 's', kind: 'pre-lay-shed', on: ago(days), sireId: null }],
        null,
        learnWaits([]),
        TODAY,
      ),
      TODAY,
    ).map(({ code, facts }) => [code, (facts as { day: number }).day]);
  expect(season(10)).toEqual([]);
  expect(season(36)).toEqual([['eggs-due', 36]]);
  const silent = { code: 'silent', facts: { hours: 9 } } as const;
  expect(climateTasks([silent], TODAY)).toEqual([{ ...silent, kind: 'climate', dueOn: TODAY, records: [] }]);
});

test('hatch rates add up by group, twins counting as one egg', () => {
  const base = { season: '2026', dam: 'F-01', sire: 'M-01', celsius: 31.4, eggs: 6, slugs: 1, hatched: 5 };
  const rows = hatchRates(
    [base, { ...base, dam: 'F-02', hatched: 6 }, { ...base, season: '2025', celsius: 31.6, hatched: 2 }],
    'season',
  );
  expect(rows.map(({ group, clutches }) => [group, clutches])).toEqual([
    ['2025', 1],
    ['2026', 2],
  ]);
  expect(rows[1]!.hatched).toMatchObject({ count: 10, of: 10, share: 1, high: 1 });
  expect(rows[1]!.fertile).toMatchObject({ count: 10, of: 12 });
  expect(hatchRates([base, { ...base, celsius: 31.6 }], 'temperature').map(({ group }) => group)).toEqual([
    { fromC: 31, toC: 31.5 },
    { fromC: 31.5, toC: 32 },
  ]);
});
