import { TASK_KINDS, task, type TaskFact } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { soakAdvice, taskWords } from './index.ts';
import { eggs, imperial, meal, metric, reasons } from './test-facts.ts';

const dose = {
  courseId: 'c',
  what: 'Drops',
  dose: '1 drop',
  orderedBy: 'Dr. Vold',
  ordinal: 3,
  of: 10,
  timeOfDay: 1,
  timesADay: 2,
  isLate: true,
};

/** One task of every code. */
const TASKS: readonly TaskFact[] = [
  {
    code: 'below-own-best',
    facts: { massG: 179, bestG: 200, bestOn: '2026-04-01', loss: 0.105, limit: 0.1 },
  },
  { code: 'below-growth', facts: { massG: 179, deviations: 3.4 } },
  { code: 'meals-refused', facts: { refused: 5, days: 38, chance: 1 / 25_000 } },
  { code: 'regurgitated-again', facts: { times: 2, days: 50 } },
  { code: 'dose-due', facts: dose },
  {
    code: 'signs-recheck-due',
    facts: {
      signs: ['wheezing'],
      words: 'rubs its nose',
      since: '2026-05-02',
      lastOn: '2026-05-11',
      everyDays: 3,
    },
  },
  { code: 'visit-due', facts: { veterinarian: 'Dr. Vold', on: '2026-05-14' } },
  { code: 'quarantine-check-due', facts: { until: '2026-07-01', everyDays: 7 } },
  { code: 'quarantine-over', facts: { since: '2026-02-13', until: '2026-05-14', reason: 'new' } },
  {
    code: 'mite-check-due',
    facts: { lastSeenOn: '2026-05-10', until: '2026-06-21', everyDays: 7, toCheck: 3, of: 12 },
  },
  { code: 'loan-over', facts: { direction: 'out', partner: 'Oak Hollow', until: '2026-05-14' } },
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
    expect(text('dose-due')).toBe('Drops, 1 drop: dose 3 of 10, 1 of 2 today, late');
    expect(text('signs-recheck-due')).toBe(
      'Wheezes or clicks as it breathes; rubs its nose, since 2 May 2026: look again',
    );
    expect(text('mite-check-due')).toBe('Mites seen: look through 3 of 12');
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
