import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays } from '../calendar/days.ts';
import type { History } from '../husbandry/history.ts';
import { freezer, frozenPrey, ORDER_RULES, stockOf, thawList } from './freezer.ts';
import { nextMeal } from './next-meal.ts';
import { planState } from './plan-state.ts';
import { FEEDING_PLANS } from './plans.ts';
import { PREY_SIZES } from './prey.ts';
import { tallyWorked, whatWorked } from './what-worked.ts';

const DAY = '2026-06-30';
const offer = fc.record({
  ago: fc.integer({ min: 0, max: 400 }),
  taken: fc.boolean(),
  step: fc.option(fc.constantFrom('planned', 'warmer', 'live', 'gone'), { nil: undefined }),
});
/** Any record of feeding that can be: offers in order, weights, a plan or none, signs of sheds. */
const anyHistory: fc.Arbitrary<History> = fc
  .record({
    offers: fc.array(offer, { maxLength: 40 }),
    massG: fc.integer({ min: 30, max: 4000 }),
    before: fc.integer({ min: 30, max: 4000 }),
    planId: fc.option(fc.constantFrom(...FEEDING_PLANS.map(({ id }) => id)), { nil: undefined }),
    shedAgo: fc.option(fc.integer({ min: 0, max: 40 }), { nil: undefined }),
    care: fc.array(
      fc.record({
        ago: fc.integer({ min: 0, max: 60 }),
        act: fc.constantFrom('not-offered' as const, 'regurgitated' as const, 'cleaned' as const),
      }),
      { maxLength: 4 },
    ),
  })
  .map(({ offers, massG, before, planId, shedAgo, care }) => ({
    hatchedOn: addDays(DAY, -500),
    weights: [
      { id: 'v', on: addDays(DAY, -40), massG: before },
      { id: 'w', on: addDays(DAY, -5), massG },
    ],
    feedings: offers
      .toSorted((a, b) => b.ago - a.ago)
      .map(({ ago, taken, step }, i) => ({
        id: `f${i}`,
        on: addDays(DAY, -ago),
        taken,
        species: 'rat',
        size: 'pup',
        state: 'frozen-thawed',
        ...(step ? { step } : {}),
      })),
    sheds: shedAgo === undefined ? [] : [{ id: 's', on: addDays(DAY, -shedAgo), stage: 'blue' as const }],
    moves: [],
    care: care
      .toSorted((a, b) => b.ago - a.ago)
      .map(({ ago, act }, i) => ({ id: `c${i}`, on: addDays(DAY, -ago), act })),
    ...(planId ? { plan: { firstMealOn: addDays(DAY, -480), planId } } : {}),
  }));

describe('whatever was recorded', () => {
  test('a meal is due on or before the day, or says why not; its prey exists and fits', () => {
    fc.assert(
      fc.property(anyHistory, (history) => {
        const meal = nextMeal(history, DAY)!;
        if (meal.verdict === 'due') expect(meal.dueOn <= DAY).toBe(true);
        if (meal.verdict === 'later' || meal.verdict === 'fasting') expect(meal.dueOn > DAY).toBe(true);
        const size = PREY_SIZES.find((one) => `${one.species} ${one.size}` === meal.prey)!;
        // Never larger than asked for, unless even the smallest is.
        const smallest = PREY_SIZES.find(({ species }) => species === meal.species)!;
        expect(size.fromG <= meal.massG + 0.5 || size === smallest).toBe(true);
        expect(meal.basis.share).toBeGreaterThan(0);
        const last = history.feedings.at(-1);
        if (last) expect(meal.dueOn > last.on).toBe(true);
      }),
    );
  });

  test('an animal stands on a step of its plan, with tries of it left', () => {
    fc.assert(
      fc.property(anyHistory, fc.constantFrom(...FEEDING_PLANS), (history, plan) => {
        const state = planState(history, plan, DAY);
        expect(plan.steps[state.index]).toBe(state.step);
        expect(state.next).toBe(plan.steps[state.index + 1] ?? null);
        // Tries run over only where the next step is held back, or there is none.
        const isHeld =
          state.next === null || state.next.afterDays !== undefined || state.next.onlyLosing === true;
        expect(state.triesUsed < state.step!.tries || isHeld).toBe(true);
      }),
    );
  });

  test('three meals in a row lead back to the plain way from any step', () => {
    fc.assert(
      fc.property(anyHistory, (history) => {
        const meals = [0, 1, 2].map((i) => ({ id: `m${i}`, on: addDays(DAY, i + 1), taken: true }));
        const after = planState(
          { ...history, feedings: [...history.feedings, ...meals] },
          FEEDING_PLANS[1]!,
          addDays(DAY, 4),
        );
        expect(after).toMatchObject({ index: 0, triesUsed: 0 });
      }),
    );
  });

  test('what worked counts each telling offer once for its prey', () => {
    fc.assert(
      fc.property(anyHistory, (history) => {
        const worked = whatWorked(tallyWorked([{ history, kindOfTub: new Map() }]));
        const prey = worked.find(({ by }) => by === 'prey');
        expect(prey?.count ?? 0).toBe(history.feedings.filter(({ taken }) => taken).length);
        for (const { low, share, high } of worked) {
          expect(low).toBeLessThanOrEqual(share!);
          expect(high).toBeGreaterThanOrEqual(share!);
        }
      }),
    );
  });
});

describe('the freezer, whatever was booked', () => {
  const quantity = fc.integer({ min: 1, max: 200 });
  const entry = fc.record({
    ago: fc.integer({ min: 1, max: 90 }),
    kind: fc.constantFrom('receipt' as const, 'count' as const, 'loss' as const),
    quantity,
  });
  const use = fc.record({ ago: fc.integer({ min: 1, max: 90 }), quantity: fc.integer({ min: 1, max: 12 }) });
  const prey = 'rat pup';
  const dated = <T extends { ago: number }>(rows: readonly T[]) =>
    rows.map(({ ago, ...row }) => ({ prey, on: addDays(DAY, -ago), ...row }));

  test('what comes in today is there more, whatever was before; a count today is what is there', () => {
    fc.assert(
      fc.property(fc.array(entry), fc.array(use), quantity, (entries, uses, more) => {
        const [booked, used] = [dated(entries), dated(uses)];
        const before = stockOf(prey, booked, used);
        const receipt = { prey, on: DAY, kind: 'receipt' as const, quantity: more };
        expect(stockOf(prey, [...booked, receipt], used)).toBe(before + more);
        expect(stockOf(prey, [...booked, { ...receipt, kind: 'count' }], used)).toBe(more);
      }),
    );
  });

  test('what is left is what is there less tonight, and less than the reorder point asks for an order', () => {
    fc.assert(
      fc.property(
        fc.array(entry, { minLength: 1 }),
        fc.array(use),
        fc.integer({ min: 0, max: 30 }),
        (entries, uses, count) => {
          const thaw = count === 0 ? [] : [{ prey, count }];
          const [line] = freezer(dated(entries), dated(uses), thaw, ORDER_RULES, DAY);
          expect(line!.left).toBe(line!.inStock - count);
          if (line!.left <= line!.reorderAt) expect(line!.order).toBe(true);
          if (line!.runsOutOn !== null) expect(line!.runsOutOn >= DAY).toBe(true);
        },
      ),
    );
  });

  test('the thaw list holds each frozen meal that is due once', () => {
    fc.assert(
      fc.property(fc.array(anyHistory, { maxLength: 20 }), (herd) => {
        const meals = herd.map((history) => nextMeal(history, DAY)!);
        const frozen = meals.filter(({ verdict, state }) => verdict === 'due' && state === 'frozen-thawed');
        expect(
          thawList(meals.map((meal) => ({ prey: frozenPrey(meal), count: 1 }))).reduce(
            (sum, { count }) => sum + count,
            0,
          ),
        ).toBe(frozen.length);
      }),
    );
  });
});
