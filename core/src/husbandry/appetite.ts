import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { FeedingRecord, History } from './history.ts';
import { inShed } from './shed-state.ts';

/** After a move an animal may sulk this long without it meaning anything. Common practice, no source. */
export const SETTLING_DAYS = 14;
/** After a meal no handling for so long. Common practice, no source. */
export const DIGESTING_DAYS = 2;
/** Days after a meal in which a weight holds the meal. Common practice, no source. */
export const MEAL_IN_DAYS = 3;

/** Months (1 to 12) in which an animal from a weight on may fast without harm. */
export interface FastingSeason {
  readonly adultG: number;
  readonly fastMonths: readonly number[];
}

/**
 * Offers that tell something about appetite: not refusals in shed or while settling after a move, nor, where a season is
 * given, those of a grown animal in its months of fasting.
 *
 * @example informativeOffers({ feedings: [{ id: 'a', on: '2026-11-08', taken: false }], weights: [], sheds: [], moves: [{ id: 'm', on: '2026-11-06', fromTub: null, toTub: 'T1' }] }) // []
 */
export function informativeOffers(history: History, season?: FastingSeason): FeedingRecord[] {
  return history.feedings.filter((offer) => {
    if (offer.taken) return true;
    if (season && season.fastMonths.includes(Number(offer.on.slice(5, 7)))) {
      const weight = history.weights.findLast(({ on }) => on <= offer.on);
      if (weight && weight.massG >= season.adultG) return false;
    }
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

/** @example appetite({ feedings: [{ id: 'a', on: '2026-11-01', taken: true }, { id: 'b', on: '2026-11-08', taken: false }], weights: [], sheds: [], moves: [] }).refusedInARow // 1 */
export function appetite(history: History): Appetite {
  const offers = informativeOffers(history);
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
