import { describe, expect, test } from 'vitest';
import jstat from 'jstat';

import { addDays } from '../calendar/days.ts';
import type { History } from '../husbandry/history.ts';
import { freezer, frozenPrey, normalQuantile, reorderPoint, stockOf, thawList } from './freezer.ts';
import { nextMeal } from './next-meal.ts';
import { planState } from './plan-state.ts';
import { FEEDING_PLANS } from './plans.ts';
import { FEEDING_RULES } from './rules.ts';
import { preyFor, preyMass } from './prey.ts';
import { mealIntervals, tallyWorked, whatWorked } from './what-worked.ts';

const TODAY = '2026-06-30';
const ago = (days: number): string => addDays(TODAY, -days);
const offers = (pattern: string, every = 7, last = 8, more = {}): History['feedings'] =>
  [...pattern].map((mark, i) => ({
    id: `f${i}`,
    on: ago(last + (pattern.length - 1 - i) * every),
    taken: mark === '+',
    ...more,
  }));
const history = (more: Partial<History> = {}): History => ({
  hatchedOn: ago(300),
  weights: [{ id: 'w', on: ago(5), massG: 200 }],
  feedings: offers('+++'),
  sheds: [],
  moves: [],
  ...more,
});
const meal = (more: Partial<History> = {}, circumstances = {}, day = TODAY) =>
  nextMeal(history(more), day, { sex: 'male', gravid: false, ...circumstances })!;

// Sizes, shares, intervals and rests: common practice, no source.
describe('the next meal', () => {
  test('prey by the share of body weight', () => {
    expect(preyFor('rat', 25)).toMatchObject({ size: 'pup' });
    expect(preyFor('rat', 2)).toMatchObject({ size: 'pinky' });
    expect(preyFor('mouse', 15)).toMatchObject({ size: 'hopper' });
    expect(preyMass('rat', 'pup')).toBe(27.5);
    expect(preyMass('rat', 'whale')).toBeNull();
    expect(meal()).toMatchObject({ verdict: 'due', prey: 'rat pup', massG: 25, everyDays: 7, dueOn: ago(1) });
  });

  test.each([
    ['in shed', { sheds: [{ id: 's', on: ago(3), stage: 'blue' as const }] }, {}, 'in-shed', 'in-shed'],
    ['gravid', {}, { gravid: true }, 'gravid', 'gravid'],
    [
      'after a regurgitation',
      { care: [{ id: 'c', on: ago(8), act: 'regurgitated' as const }] },
      {},
      'resting',
      'resting-after-regurgitation',
    ],
    [
      'before its first shed',
      { hatchedOn: ago(9), feedings: [], plan: { firstMealOn: ago(1), planId: 'x' } },
      {},
      'first-shed',
      'before-first-shed',
    ],
  ])('%s it is passed over, and that is said', (_, more, circumstances, verdict, note) => {
    const held = meal(more, circumstances);
    expect(held.verdict).toBe(verdict);
    expect(held.notes.at(-1)!.code).toBe(note);
  });

  test('after the rest the meal is half of the usual one, until one was kept', () => {
    const care = [{ id: 'c', on: ago(13), act: 'regurgitated' as const }];
    expect(meal({ care, feedings: offers('++', 7, 14) })).toMatchObject({
      verdict: 'due',
      prey: 'rat fuzzy',
    });
    expect(meal({ care, feedings: offers('+++', 7, 8) })).toMatchObject({ prey: 'rat pup' });
  });

  test('passed over tonight, it comes again tomorrow', () => {
    const care = [{ id: 'c', on: TODAY, act: 'not-offered' as const }];
    expect(meal({ care })).toMatchObject({ verdict: 'later', dueOn: addDays(TODAY, 1) });
    expect(meal({ care }, {}, addDays(TODAY, 1)).verdict).toBe('due');
  });

  test('a grown male that fasts in the season is offered less often', () => {
    const winter = '2026-01-20';
    const feedings = [70, 49, 28, 15].map((days, i) => ({
      id: `f${i}`,
      on: addDays(winter, -days),
      taken: i === 0,
    }));
    const grown = {
      weights: [{ id: 'w', on: '2026-01-10', massG: 1600 }],
      feedings,
      hatchedOn: '2022-06-01',
    };
    expect(meal(grown, {}, winter)).toMatchObject({ verdict: 'fasting', dueOn: addDays(winter, 13) });
    const twice = feedings.slice(0, 3);
    expect(meal({ ...grown, feedings: twice }, {}, winter)).toMatchObject({ verdict: 'due', everyDays: 21 });
    expect(meal(grown, {}, addDays(winter, 13)).verdict).toBe('due');
    expect(meal({ ...grown, feedings }, {}, '2026-07-20').verdict).toBe('due');
  });

  test('its own way stands before the rules', () => {
    const own = { everyDays: 5, share: 0.15, species: 'mouse' as const };
    expect(meal({ own })).toMatchObject({ everyDays: 5, massG: 30, prey: 'mouse adult' });
  });
});

describe('the ladder of refusals', () => {
  const plan = FEEDING_PLANS.find(({ id }) => id === 'frozen-first')!;
  const at = (pattern: string, more: Partial<History> = {}) =>
    planState(history({ feedings: offers(pattern), ...more }), plan, TODAY);

  test('each step has its tries, one after the other', () => {
    expect(at('+')).toMatchObject({ index: 0, triesUsed: 0 });
    expect(at('+-')).toMatchObject({ index: 0, triesUsed: 1 });
    expect(at('+--').step!.key).toBe('wait');
    expect(at('+---').step!.key).toBe('warmer');
    expect(at('+----')).toMatchObject({ triesUsed: 1 });
    expect(at('+-----').step!.key).toBe('dry-or-wet');
  });

  test('a meal keeps what worked; a run of three goes back to the plain way', () => {
    expect(at('+---+').step!.key).toBe('warmer');
    expect(at('+---++').step!.key).toBe('warmer');
    expect(at('+---+++').step!.key).toBe('planned');
  });

  test('refusals in shed do not count', () => {
    expect(at('+--', { sheds: [{ id: 's', on: ago(16), stage: 'blue' }] })).toMatchObject({
      index: 0,
      triesUsed: 0,
    });
  });

  test('a grown one’s in its season do not count either', () => {
    const winter = history({
      weights: [{ id: 'w', on: '2025-11-01', massG: 1500 }],
      feedings: ['2025-12-01', '2025-12-20', '2026-01-10'].map((on, i) => ({ id: `${i}`, on, taken: false })),
    });
    expect(planState(winter, plan, '2026-01-12', FEEDING_RULES)).toMatchObject({ index: 0, triesUsed: 0 });
    expect(planState(winter, plan, '2026-01-12')).toMatchObject({ index: 2 });
  });

  test('what was done stands before what was planned', () => {
    const feedings = [
      { id: 'a', on: ago(20), taken: true },
      { id: 'b', on: ago(9), taken: false, step: 'scent' },
    ];
    expect(planState(history({ feedings }), plan, TODAY)).toMatchObject({
      step: { key: 'scent' },
      triesUsed: 1,
    });
  });

  test('steps that can hurt wait for their days, and assisting for falling weight too', () => {
    const last = plan.steps.at(-1)!;
    expect(last).toMatchObject({ key: 'assist', onlyLosing: true });
    const daily = (count: number, step: string) =>
      Array.from({ length: count }, (_, i) => ({ id: `f${i}`, on: ago(count - i), taken: i === 0, step }));
    const state = (count: number, grams: number) =>
      planState(
        history({
          feedings: daily(count, 'other-species'),
          weights: [
            { id: 'v', on: ago(count + 1), massG: 200 },
            { id: 'w', on: TODAY, massG: grams },
          ],
        }),
        plan,
        TODAY,
      );
    expect(state(10, 180).step!.key).toBe('other-species');
    expect(state(10, 180).nextNotBefore).toBe(addDays(ago(10), 28));
    expect(
      plan.steps
        .filter(({ key }) => ['live', 'skull', 'assist'].includes(key))
        .every(({ caution }) => caution),
    ).toBe(true);
  });
});

describe('what worked', () => {
  test('taken of offered by what was done, with intervals', () => {
    const subject = (pattern: string, state: string) => ({
      history: history({
        feedings: offers(pattern, 7, 3, { state, species: 'rat', size: 'pup' }),
        moves: [{ id: 'm', on: ago(250), fromTub: null, toTub: 't', substrate: 'paper' }],
      }),
      kindOfTub: new Map([['t', 'Hatchling tub']]),
    });
    const worked = whatWorked(tallyWorked([subject('+-+-', 'frozen-thawed'), subject('++++', 'live')]));
    const of = (by: string, value: string) => worked.find((one) => one.by === by && one.value === value)!;
    expect(of('state', 'live')).toMatchObject({ count: 4, of: 4 });
    expect(of('state', 'frozen-thawed')).toMatchObject({ count: 2, of: 4, share: 0.5 });
    expect(of('tub', 'Hatchling tub')).toMatchObject({ count: 6, of: 8 });
    expect(of('substrate', 'paper')).toMatchObject({ of: 8 });
    expect(mealIntervals(subject('+-+', 'live').history)).toEqual([14]);
  });
});

describe('the freezer', () => {
  const prey = 'rat pup';
  const entries = [
    { prey, on: ago(40), kind: 'receipt' as const, quantity: 500 },
    { prey, on: ago(30), kind: 'count' as const, quantity: 60 },
    { prey, on: ago(20), kind: 'receipt' as const, quantity: 100 },
    { prey, on: ago(10), kind: 'loss' as const, quantity: 5 },
  ];
  const use = (days: number, quantity: number) => ({ prey, on: ago(days), quantity });

  test('from the last count on: what came, less what was thawed or lost', () => {
    expect(stockOf(prey, entries, [use(35, 20), use(30, 9), use(7, 30)])).toBe(60 + 100 - 5 - 30);
    expect(stockOf('rat small', entries, [])).toBe(0);
  });

  test('only frozen prey of meals that are due is thawed', () => {
    const due = meal();
    const later = meal({ feedings: offers('+', 7, 1) });
    const live = meal({ plan: { firstMealOn: ago(1), planId: 'live-pinkies' }, feedings: [] });
    expect(live.state).toBe('live');
    expect(thawList([due, due, later, live].map((meal) => ({ prey: frozenPrey(meal), count: 1 })))).toEqual([
      { prey: 'rat pup', count: 2 },
    ]);
  });

  test('the deviates of the normal distribution', () => {
    for (const share of [0.001, 0.05, 0.3, 0.5, 0.8, 0.9, 0.95, 0.99, 0.9999]) {
      expect(Math.abs(normalQuantile(share) - jstat.jStat.normal.inv(share, 0, 1))).toBeLessThan(4.5e-4);
    }
    expect(() => normalQuantile(1)).toThrow(RangeError);
  });

  test('the reorder point of the textbook', () => {
    // Heizer & Render, Operations Management, inventory chapter (from memory): 15 a day, deviation 5, two days, 90%: 39.
    expect(Math.round(reorderPoint(15, 5, { leadDays: 2, service: 0.9 }))).toBe(39);
    expect(reorderPoint(15, 5, { leadDays: 2, service: 0.9 })).toBeCloseTo(39.06, 1);
  });

  test('what is left after tonight, when it runs out, and when to order', () => {
    const uses = [2, 9, 16, 23, 30, 37, 44, 51].map((days) => use(days, 14));
    const [line] = freezer(
      [{ prey, on: ago(60), kind: 'count', quantity: 200 }],
      uses,
      [{ prey, count: 14 }],
      { leadDays: 14, service: 0.95 },
      TODAY,
    );
    expect(line).toMatchObject({
      prey,
      inStock: 200 - 8 * 14,
      tonight: 14,
      left: 74,
      aWeek: 14,
      order: false,
    });
    expect(line!.runsOutOn).toBe(addDays(TODAY, 37));
    expect(line!.reorderAt).toBeGreaterThan(28);
    const [short] = freezer(
      [{ prey, on: ago(1), kind: 'count', quantity: 10 }],
      uses,
      [{ prey, count: 14 }],
      { leadDays: 14, service: 0.95 },
      TODAY,
    );
    expect(short).toMatchObject({ left: -4, runsOutOn: TODAY, order: true });
  });
});
