import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import type { FeedingRecord, History } from './history.ts';
import { inShed } from './shed-state.ts';

/** After a move an animal may sulk this long without it meaning anything. Common practice, no source. */
export const SETTLING_DAYS = 14;

/** Offers that tell something about appetite: not those made in shed or while settling after a move. */
export function tellingOffers(history: History): FeedingRecord[] {
  return history.feedings.filter((offer) => {
    if (offer.taken) return true;
    const settling = history.moves.some(
      (move) => move.on <= offer.on && daysBetween(move.on, offer.on) < SETTLING_DAYS,
    );
    return !settling && inShed(history.sheds, offer.on) === null;
  });
}

export interface Appetite {
  /** Meals taken without a refusal since, counted back from the last offer. */
  readonly inARow: number;
  readonly refusedInARow: number;
  readonly takenEver: number;
  readonly offeredEver: number;
  readonly lastTakenOn: IsoDay | null;
  readonly lastOfferedOn: IsoDay | null;
  /** Share of the telling offers that were taken; null with none. */
  readonly share: number | null;
}

export function appetite(history: History): Appetite {
  const offers = tellingOffers(history);
  const lastRefused = offers.findLastIndex((offer) => !offer.taken);
  const lastTaken = offers.findLastIndex((offer) => offer.taken);
  const taken = history.feedings.filter((offer) => offer.taken);
  return {
    inARow: offers.length - 1 - lastRefused,
    refusedInARow: offers.length - 1 - lastTaken,
    takenEver: taken.length,
    offeredEver: history.feedings.length,
    lastTakenOn: taken.at(-1)?.on ?? null,
    lastOfferedOn: history.feedings.at(-1)?.on ?? null,
    share: offers.length === 0 ? null : offers.filter((offer) => offer.taken).length / offers.length,
  };
}

/** Prey by mass, grams. Common practice, no source. */
export const PREY_SIZES: readonly {
  readonly species: 'rat' | 'mouse';
  readonly size: string;
  readonly fromG: number;
  readonly toG: number;
}[] = [
  { species: 'mouse', size: 'pinky', fromG: 1, toG: 3 },
  { species: 'mouse', size: 'fuzzy', fromG: 3, toG: 6 },
  { species: 'mouse', size: 'hopper', fromG: 7, toG: 12 },
  { species: 'mouse', size: 'adult', fromG: 20, toG: 35 },
  { species: 'rat', size: 'pinky', fromG: 4, toG: 10 },
  { species: 'rat', size: 'fuzzy', fromG: 10, toG: 20 },
  { species: 'rat', size: 'pup', fromG: 20, toG: 35 },
  { species: 'rat', size: 'weaned', fromG: 35, toG: 60 },
  { species: 'rat', size: 'small', fromG: 60, toG: 120 },
  { species: 'rat', size: 'medium', fromG: 120, toG: 200 },
  { species: 'rat', size: 'large', fromG: 200, toG: 400 },
];

/** Share of body weight a meal should have, and days between meals, by weight. Common practice, no source. */
const MEAL_PLANS = [
  { belowG: 300, share: 0.125, everyDays: 7 },
  { belowG: 800, share: 0.1, everyDays: 10 },
  { belowG: 1500, share: 0.07, everyDays: 14 },
  { belowG: Infinity, share: 0.05, everyDays: 21 },
] as const;

export interface MealPlan {
  /** Grams of prey. */
  readonly preyG: number;
  /** "rat pup" */
  readonly prey: string;
  readonly dueOn: IsoDay;
  readonly everyDays: number;
}

/** A hatchling lives on yolk until its first shed and is offered its first meal about a week after. */
const FIRST_MEAL_AFTER_SHED_DAYS = 7;
const FIRST_SHED_DAY = 8;
/** A start with mice is for so many offers, to get volume going; then rats. */
const FIRST_MEALS = 5;

/**
 * The next meal: what and when.
 *
 * @returns null for an animal that was never weighed
 */
export function nextMeal(history: History): MealPlan | null {
  const weight = history.weights.at(-1);
  if (!weight) return null;
  const plan = MEAL_PLANS.find((candidate) => weight.massG < candidate.belowG)!;
  const preyG = weight.massG * plan.share;
  const species = history.plan?.withMice && history.feedings.length < FIRST_MEALS ? 'mouse' : 'rat';
  const sizes = PREY_SIZES.filter((prey) => prey.species === species);
  const prey = sizes.findLast((candidate) => candidate.fromG <= preyG) ?? sizes[0]!;
  const last = history.feedings.at(-1);
  const shed = history.sheds.find((record) => record.stage === 'shed');
  const firstDay = shed?.on ?? (history.hatchedOn ? addDays(history.hatchedOn, FIRST_SHED_DAY) : weight.on);
  const firstMealOn = history.plan?.firstMealOn ?? addDays(firstDay, FIRST_MEAL_AFTER_SHED_DAYS);
  const dueOn = last ? addDays(last.on, plan.everyDays) : firstMealOn;
  return { preyG: Math.round(preyG), prey: `${prey.species} ${prey.size}`, dueOn, everyDays: plan.everyDays };
}
