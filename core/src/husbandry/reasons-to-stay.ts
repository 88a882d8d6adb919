import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { DIGESTING_DAYS, SETTLING_DAYS, type Appetite } from './appetite.ts';
import type { History } from './history.ts';
import type { LadderStep } from './ladders.ts';
import type { MoveReason, WeighedReason } from './move-reasons.ts';
import { inShed } from './shed-state.ts';

/* All limits below: common practice, no source. */
const STALE_WEIGHT_DAYS = 35;
/** Of all meals offered, fewer than this share taken: a shy feeder. */
const SHY_SHARE = 0.7;
/** A shy feeder that eats well where it is may outgrow its tub by this factor. */
const SHY_LEEWAY = 1.2;
/** Meals in a row that count as eating well. */
export const GOOD_RUN = 3;

interface Standing {
  readonly step: LadderStep;
  readonly next: LadderStep;
  readonly history: History;
  readonly eating: Appetite;
  readonly today: IsoDay;
}

/** Why an animal should stay in its tub for now, whatever its weight. It was weighed at least once. */
export function reasonsToStay(standing: Standing): WeighedReason[] {
  return [...passingReasons(standing), ...appetiteReasons(standing)];
}

function blocking(reason: MoveReason, records: readonly string[]): WeighedReason {
  return { ...reason, side: 'against', records, weight: 4, blocks: true };
}
function weighing(reason: MoveReason, records: readonly string[]): WeighedReason {
  return { ...reason, side: 'against', records, weight: 4 };
}

/** What is over by itself in some days. */
function passingReasons({ history, eating, today }: Standing): WeighedReason[] {
  const reasons: WeighedReason[] = [];
  const shed = inShed(history.sheds, today);
  if (shed) {
    reasons.push(blocking({ code: 'in-shed', facts: { stage: shed.stage, day: shed.days } }, [shed.record]));
  }
  const daysSinceMeal = eating.lastTakenOn ? daysBetween(eating.lastTakenOn, today) : Infinity;
  if (daysSinceMeal < DIGESTING_DAYS) {
    const facts = { daysSinceMeal, restDays: DIGESTING_DAYS };
    reasons.push(blocking({ code: 'digesting', facts }, lastOffers(history, 1)));
  }
  const move = history.moves.findLast((record) => record.fromTub !== null);
  const days = move ? daysBetween(move.on, today) : Infinity;
  if (move && days < SETTLING_DAYS) {
    const facts = { days, settlingDays: SETTLING_DAYS };
    reasons.push(blocking({ code: 'settling', facts }, [move.id]));
  }
  const weight = history.weights.at(-1)!;
  const age = daysBetween(weight.on, today);
  if (age > STALE_WEIGHT_DAYS) {
    const facts = { days: age, staleDays: STALE_WEIGHT_DAYS };
    reasons.push(blocking({ code: 'stale-mass', facts }, [weight.id]));
  }
  return reasons;
}

/** What its meals say. */
function appetiteReasons({ step, next, history, eating }: Standing): WeighedReason[] {
  const reasons: WeighedReason[] = [];
  const { inARow, refusedInARow, share, takenEver, offeredEver } = eating;
  if (refusedInARow >= 2) {
    const records = lastOffers(history, refusedInARow);
    reasons.push(weighing({ code: 'refuses-meals', facts: { refusedInARow } }, records));
  }
  const { massG } = history.weights.at(-1)!;
  const isShy = share !== null && share < SHY_SHARE;
  const isWithinLeeway = step.maxG !== null && massG <= step.maxG * SHY_LEEWAY;
  if (isShy && inARow >= GOOD_RUN && isWithinLeeway) {
    const facts = { mealsInARow: inARow, takenEver, offeredEver, leeway: SHY_LEEWAY - 1 };
    reasons.push(weighing({ code: 'shy-feeder', facts }, lastOffers(history, inARow)));
  }
  if (next.mealsBefore !== undefined && inARow < next.mealsBefore) {
    const facts = { mealsInARow: inARow, neededMeals: next.mealsBefore, nextStep: next.name };
    reasons.push(blocking({ code: 'too-few-meals', facts }, lastOffers(history, Math.max(1, inARow))));
  }
  return reasons;
}

/** Ids of the last meals offered. */
export function lastOffers(history: History, count: number): string[] {
  return history.feedings.slice(-count).map((offer) => offer.id);
}
