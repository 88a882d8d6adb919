import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import { informativeOffers, type FastingSeason } from '../husbandry/appetite.ts';
import type { FeedingRecord, History } from '../husbandry/history.ts';
import type { FeedingPlan, PlanStep } from './plans.ts';

/** Where an animal stands on the ladder of refusals. */
export interface PlanState {
  readonly planId: string;
  /** Null where the plan has no steps. */
  readonly step: PlanStep | null;
  readonly index: number;
  /** Refusals at this step since the last meal. */
  readonly triesUsed: number;
  readonly next: PlanStep | null;
  /** The next step is not taken before this day; null where nothing holds it back. */
  readonly nextNotBefore: IsoDay | null;
  /** Its last weight lies below the one before the last meal it took. */
  readonly losing: boolean;
}

/** After so many meals in a row the plain way is tried again. Common practice, no source. */
const BACK_TO_PLAIN_MEALS = 3;

/**
 * Reads the ladder of refusals off the record: each telling refusal uses up a try, a meal keeps the step that worked, and
 * after a run of meals the plain way is tried again. Refusals in shed, while settling after a move, or by a grown animal in
 * its season of fasting do not count.
 *
 * @example planState({ hatchedOn: null, weights: [], feedings: [], sheds: [], moves: [] }, FEEDING_PLANS[0], '2026-11-28').index // 0
 */
export function planState(
  history: History,
  plan: FeedingPlan,
  day: IsoDay,
  season?: FastingSeason,
): PlanState {
  const { steps } = plan;
  const taken = history.feedings.filter((offer) => offer.taken);
  const lastMeal = taken.at(-1)?.on ?? null;
  const base = lastMeal ?? history.feedings[0]?.on ?? null;
  const losing = isLosing(history, lastMeal);
  let at: OnLadder = { index: 0, triesUsed: 0, run: 0 };
  for (const offer of informativeOffers(history, season)) {
    if (offer.on > day) break;
    at = afterOffer(at, offer, steps, (step) => isOpen(step, offer.on, base, losing));
  }
  const { index, triesUsed } = at;
  const next = steps[index + 1] ?? null;
  return {
    planId: plan.id,
    step: steps[index] ?? null,
    index,
    triesUsed,
    next,
    nextNotBefore: next?.afterDays !== undefined && base !== null ? addDays(base, next.afterDays) : null,
    losing,
  };
}

/** Where an animal stands on the ladder of refusals. */
interface OnLadder {
  readonly index: number;
  readonly triesUsed: number;
  /** Meals in a row. */
  readonly run: number;
}

function afterOffer(
  before: OnLadder,
  offer: FeedingRecord,
  steps: readonly PlanStep[],
  isOpenStep: (step: PlanStep) => boolean,
): OnLadder {
  const said = steps.findIndex(({ key }) => key === offer.step);
  const isOther = said !== -1 && said !== before.index;
  const index = isOther ? said : before.index;
  if (offer.taken) {
    const run = before.run + 1;
    return { index: run >= BACK_TO_PLAIN_MEALS ? 0 : index, triesUsed: 0, run };
  }
  const triesUsed = (isOther ? 0 : before.triesUsed) + 1;
  const step = steps[index];
  const next = steps[index + 1];
  if (!step || triesUsed < step.tries || !next || !isOpenStep(next)) return { index, triesUsed, run: 0 };
  return { index: index + 1, triesUsed: 0, run: 0 };
}

/**
 * The step that an offer carries: none for a meal as planned, of which there is nothing to remember.
 *
 * @example offeredStep({ index: 0, step: { key: 'usual' } }) // null
 */
export function offeredStep({ index, step }: PlanState): string | null {
  return index > 0 ? (step?.key ?? null) : null;
}

function isOpen(step: PlanStep, on: IsoDay, base: IsoDay | null, losing: boolean): boolean {
  if (step.onlyLosing && !losing) return false;
  return step.afterDays === undefined || base === null || daysBetween(base, on) >= step.afterDays;
}

function isLosing(history: History, lastMeal: IsoDay | null): boolean {
  const last = history.weights.at(-1);
  const before = history.weights.findLast(
    (weight) => weight !== last && (lastMeal === null || weight.on <= lastMeal),
  );
  return last !== undefined && before !== undefined && last.massG < before.massG;
}
