import { daysBetween, type IsoDay } from '../calendar/days.ts';

/** An animal's time for sale, as its events tell it. */
export interface OfferSpell {
  readonly hatchedOn: IsoDay | null;
  readonly offeredOn: IsoDay;
  /** Where it left for a buyer. */
  readonly soldOn: IsoDay | null;
  /** Where it is not for sale any more, sold or not; null: it still is. */
  readonly endedOn: IsoDay | null;
}

export interface LearnedPace {
  /** The share of those for sale that is sold in a week. */
  readonly perWeek: number;
  readonly sold: number;
  /** Weeks for sale, all animals together. */
  readonly weeks: number;
  /** The middle age at which animals were offered, weeks; null where no hatch date is known. */
  readonly offeredAtWeeks: number | null;
}

/** With fewer sales than this, what they teach is mostly chance: the assumption stays. Assumption. */
const FEWEST_SALES = 5;

/**
 * The pace of sale: sales divided by the time for sale, those that are not sold yet included. The maximum-likelihood estimate
 * of a constant hazard under right censoring (Kalbfleisch and Prentice, The Statistical Analysis of Failure Time Data,
 * section 3.4), turned into the share of a week.
 *
 * @returns null with fewer than five sales
 *
 * @example learnPace([{ hatchedOn: null, offeredOn: '2026-01-01', soldOn: null, endedOn: null }], '2026-02-01') // null
 */
export function learnPace(spells: readonly OfferSpell[], today: IsoDay): LearnedPace | null {
  const sold = spells.filter(({ soldOn }) => soldOn !== null).length;
  if (sold < FEWEST_SALES) return null;
  // A day counts from its beginning to its end: what is sold on the day it was offered was for sale for a day.
  const days = spells.reduce(
    (sum, { offeredOn, endedOn }) => sum + Math.max(1, daysBetween(offeredOn, endedOn ?? today)),
    0,
  );
  const weeks = days / 7;
  const ages = spells
    .flatMap(({ hatchedOn, offeredOn }) =>
      hatchedOn === null ? [] : [daysBetween(hatchedOn, offeredOn) / 7],
    )
    .toSorted((a, b) => a - b);
  return {
    perWeek: 1 - Math.exp(-sold / weeks),
    sold,
    weeks,
    offeredAtWeeks: ages.length === 0 ? null : ages[Math.floor(ages.length / 2)]!,
  };
}
