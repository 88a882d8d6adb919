import { TASK_KINDS, task, weightDoubt, type Expected, type TaskFact } from '@karyotome/core';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  againstPairWords,
  alarmWords,
  concernWords,
  cuttingWords,
  heatFaultWords,
  mealWhy,
  moveReasonWords,
  numberWords,
  oneInWords,
  readinessWords,
  Reader,
  recordWords,
  roomChangeWords,
  soakAdvice,
  taskWords,
  waitWords,
  weightDoubtWords,
} from './index.ts';

const metric = new Reader({ locale: 'en-GB', massUnit: 'g', temperatureUnit: 'C' });
const imperial = new Reader({ locale: 'en-US', massUnit: 'oz', temperatureUnit: 'F' });

const eggs: Expected = {
  what: 'eggs',
  from: '2026-05-14',
  middle: '2026-05-20',
  to: '2026-06-01',
  day: 36,
  later: 0.2,
  clutches: 2,
};
const meal = {
  species: 'rat',
  size: 'pup',
  state: 'frozen-thawed',
  massG: 26,
  dueOn: '2026-05-14',
  everyDays: 7,
  basis: { massG: 208, weighedOn: '2026-05-01', share: 0.125 },
  notes: [],
  trying: null,
} as const;
const reasons = [
  {
    side: 'for',
    code: 'over-step-mass',
    facts: { massG: 342, step: 'Hatchling tub', maxG: 300, nextStep: 'Yearling tub', nextMinG: 250 },
    records: [],
    weight: 2,
  },
] as const;

/** One task of every code. */
const TASKS: readonly TaskFact[] = [
  {
    code: 'below-own-best',
    facts: { massG: 179, bestG: 200, bestOn: '2026-04-01', loss: 0.105, limit: 0.1 },
  },
  { code: 'below-growth', facts: { massG: 179, deviations: 3.4 } },
  { code: 'meals-refused', facts: { refused: 5, days: 38, chance: 1 / 25_000 } },
  { code: 'regurgitated-again', facts: { times: 2, days: 50 } },
  { code: 'first-shed-due', facts: { ageDays: 8, fromDay: 7, toDay: 10 } },
  { code: 'shed-due', facts: { stage: 'blue', day: 3, from: '2026-05-15', to: '2026-05-19' } },
  { code: 'shed-overdue', facts: { stage: 'blue', day: 14, from: '2026-05-02', to: '2026-05-06' } },
  { code: 'soak-due', facts: { remains: 'pieces', soak: 2 } },
  { code: 'retained-shed', facts: { remains: 'caps', soaks: 3 } },
  { code: 'meal-due', facts: meal },
  { code: 'cleaning-due', facts: { lastOn: '2026-05-01', everyDays: 14 } },
  { code: 'cleaning-after-shed-due', facts: { shedOn: '2026-05-12' } },
  { code: 'first-weighing-due', facts: {} },
  { code: 'weighing-due', facts: { lastOn: '2026-04-01', massG: 342.2, everyDays: 30 } },
  { code: 'identification-due', facts: {} },
  { code: 'identification-recheck-due', facts: { sure: 'probable', identifiedOn: '2026-04-01' } },
  { code: 'sexing-due', facts: {} },
  { code: 'sex-recheck-due', facts: { sexedOn: '2026-02-01' } },
  { code: 'bench-work-due', facts: { identify: 4, sex: 2 } },
  { code: 'move-up', facts: { reasons } },
  { code: 'move-back', facts: { reasons } },
  { code: 'settling-after-move', facts: { days: 9 } },
  { code: 'egg-check-due', facts: { day: 23 } },
  { code: 'first-pip-due', facts: { ...eggs, what: 'first-pip' } },
  { code: 'hatching', facts: { day: 58 } },
  { code: 'cutting-due', facts: { day: 61, cutting: { protocol: 'unpipped-at-day', day: 60 } } },
  { code: 'eggs-due', facts: eggs },
  { code: 'pre-lay-shed-due', facts: { ...eggs, what: 'pre-lay-shed' } },
  { code: 'too-warm', facts: { celsius: 33.1, limitC: 32.2 } },
  { code: 'too-cold', facts: { celsius: 28, limitC: 30.5 } },
  { code: 'too-dry', facts: { humidity: 60, limit: 80 } },
  { code: 'silent', facts: { hours: 9 } },
  {
    code: 'heat-fault',
    facts: { faults: [{ code: 'burning-surface', facts: { celsius: 37.5 } }], everyDays: 30 },
  },
  { code: 'heat-check-due', facts: { everyDays: 30 } },
  {
    code: 'reservation-lapsed',
    facts: { until: '2026-06-29' },
  },
  {
    code: 'prey-short',
    facts: { prey: 'rat pup', left: -3, tonight: 8, perWeek: 12, reorderAt: 30, runsOutOn: '2026-05-14' },
  },
  {
    code: 'prey-order-due',
    facts: { prey: 'rat pup', left: 9, tonight: 8, perWeek: 12, reorderAt: 30, runsOutOn: null },
  },
];

describe('tasks', () => {
  test('each has its words, and its kind', () => {
    expect(TASKS.map(({ code }) => code).toSorted()).toEqual(Object.keys(TASK_KINDS).toSorted());
    for (const one of TASKS) {
      const { text, why } = taskWords(one, metric);
      expect(text, one.code).toMatch(/^[A-Z0-9]/);
      expect(`${text} ${why}`, one.code).not.toMatch(/undefined|NaN|\[object|\bnull\b|\.\./);
      if (why !== '') expect(why, one.code).toMatch(/[.]$/);
    }
  });

  test('a reader of ounces and Fahrenheit finds no gram, no Celsius and no ISO date', () => {
    for (const one of TASKS) {
      const { text, why } = taskWords(one, imperial);
      expect(`${text} ${why}`, one.code).not.toMatch(/\d\s?g\b|°C|\d{4}-\d{2}-\d{2}/);
    }
    expect(soakAdvice(imperial)).toContain('84.9°F to 88.0°F');
  });

  test('are said short and literally', () => {
    const text = (code: TaskFact['code']): string =>
      taskWords(
        task(
          TASKS.find((one) => one.code === code)!,
          '2026-05-14',
        ),
        metric,
      ).text;
    expect(text('meal-due')).toBe('Offer rat pup, 26 g');
    expect(text('eggs-due')).toBe('Check for eggs. Day 36, 1 in 5 lay later than this');
    expect(text('cutting-due')).toBe('Day 61: cut what has not pipped');
    expect(text('silent')).toBe('No reading for 9 hours: is the sensor working?');
    expect(text('bench-work-due')).toBe('Identify 4, sex 2');
    expect(text('heat-fault')).toBe('Heat: 37.5°C on the warm side burns');
    expect(text('prey-short')).toBe('3 rat pup short for tonight');
    expect(text('sex-recheck-due')).toBe('Recheck sex');
  });

  test('a meal that is tried in another way says how, and what comes next', () => {
    const trying = {
      name: 'Live',
      isPlanned: false,
      attempt: 1,
      tries: 2,
      next: 'Another prey species',
      caution: 'Live rodents bite.',
    };
    const { text, why } = taskWords({ code: 'meal-due', facts: { ...meal, state: 'live', trying } }, metric);
    expect(text).toBe('Offer live rat pup, 26 g, live');
    expect(why).toBe(
      '208 g on 1 May 2026: 12.5% is about 26 g, every 7 days. Live: attempt 1 of 2. Then: Another prey species. Live rodents bite.',
    );
  });
});

describe('reasons and findings', () => {
  test('of a move, with the limits that decided', () => {
    const [over] = reasons;
    expect(moveReasonWords(over, metric)).toEqual({
      text: '342 g, 14% over the 300 g of the Hatchling tub',
      rule: 'Hatchling tub: up to 300 g; Yearling tub: from 250 g.',
    });
    expect(moveReasonWords({ code: 'digesting', facts: { daysSinceMeal: 1, restDays: 2 } }, metric)).toEqual({
      text: 'Fed 1 day ago',
      rule: 'No handling for 48 hours after a meal.',
    });
  });

  test('of readiness', () => {
    const floor = { of: 'females', floorG: 1500, fromYears: null } as const;
    const reason = { side: 'against', records: [] } as const;
    expect(
      readinessWords({ ...reason, code: 'under-floor', facts: { massG: 1400, floor } }, metric).text,
    ).toBe('1,400 g, 100 g under the minimum');
    expect(
      readinessWords({ ...reason, code: 'locked-recently', facts: { days: 1, restDays: 3 } }, metric).text,
    ).toBe('Locked 1 day ago');
    expect(againstPairWords({ code: 'sire-load-used-up', facts: {} }, metric)).toBe(
      'Male: no more females this season',
    );
  });

  test('a doubtful weight asks, with what was expected', () => {
    const expected = { lowG: 190, midG: 210, highG: 230 };
    const told = (massG: number): string => weightDoubtWords(weightDoubt(massG, expected)!, metric);
    expect(told(105)).toBe('105 g is 50% of what was expected: right animal? Expected 190 g to 230 g.');
    expect(told(420)).toBe('420 g is 2 times of what was expected: right animal? Expected 190 g to 230 g.');
    expect(told(180)).toBe('180 g is lighter than expected. Expected 190 g to 230 g.');
  });

  test('a concern, a heat fault, an alarm, a change of the room', () => {
    const concern = { since: '2026-05-14', records: [] };
    expect(
      concernWords(
        { ...concern, code: 'meals-refused', facts: { refused: 5, days: 38, chance: 1 / 2_345 } },
        metric,
      ),
    ).toEqual({
      text: '5 meals refused in a row, none taken for 38 days',
      why: 'By its own record and that of animals like it, fewer than one in 2,300 would do so by chance.',
    });
    expect(
      heatFaultWords({ code: 'off-target', facts: { side: 'cool', celsius: 30, targetC: 27.8 } }, metric),
    ).toBe('30.0°C on the cool side, not 27.8°C');
    expect(alarmWords({ code: 'silent', facts: { hours: null } }, metric)).toBe('No reading yet');
    expect(alarmWords({ code: 'silent', facts: { hours: 72 } }, metric)).toBe('No reading for 3 days');
    expect(
      roomChangeWords(
        { code: 'buy-places', facts: { places: [{ kind: 'Hatchling tub', count: 6 }] } },
        metric,
      ),
    ).toBe('Buy 6 places of Hatchling tub');
  });
});

describe('a share as a count', () => {
  test('is never further off than a tenth', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (p) => {
        const words = oneInWords(p);
        const [part, whole] = words.split(' in ').map(Number);
        const named: Record<string, number> = { 'nearly all': 1, 'hardly any': 0, half: 0.5 };
        expect(Math.abs((named[words] ?? part! / whole!) - p)).toBeLessThan(0.1);
      }),
    );
  });

  test('stands in what is expected', () => {
    expect(waitWords(eggs)).toBe('Day 36, 1 in 5 lay later than this');
    expect(waitWords({ ...eggs, day: 2, later: 1 })).toBe('Day 2: too early to lay');
    expect(waitWords({ ...eggs, day: 90, later: 0.001 })).toBe('Day 90, hardly any lay later than this');
    expect(cuttingWords({ protocol: 'unpipped-at-day', day: 60 })).toBe(
      'Your rule: what has not pipped by day 60 is cut.',
    );
  });
});

test('a record in one line', () => {
  expect(recordWords({ kind: 'weight', body: { massG: 342 } }, imperial)).toBe('12.06 oz');
  expect(
    recordWords(
      { kind: 'feeding', body: { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: false } },
      metric,
    ),
  ).toBe('rat pup, frozen-thawed: refused');
  expect(
    recordWords({ kind: 'shed', body: { stage: 'shed', complete: false, eyeCaps: false } }, metric),
  ).toBe('has shed, in pieces, eye caps retained');
  const own = { everyDays: 5, share: 0.125, species: 'mouse', stayUntilG: 400 } as const;
  expect(recordWords({ kind: 'own-way', body: own }, metric)).toBe(
    'fed every 5 days, meals of 12.5% of its weight, mice, stays in its tub up to 400 g',
  );
  expect(recordWords({ kind: 'own-way', body: {} }, metric)).toBe('as the rules say');
  expect(mealWhy({ ...meal, notes: [{ code: 'gravid', facts: {} }] }, metric)).toMatch(
    /Gravid: passed over\.$/,
  );
});

test('a number of the pattern says its season, clutch and hatchling', () => {
  expect(numberWords('2604-02')).toBe('Season 2026, clutch 4, hatchling 2');
  expect(numberWords('Juniper')).toBeNull();
});
