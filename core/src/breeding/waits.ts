import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { bellOdds, learn, skewedOdds, type Learned } from '../numeric/whole-odds.ts';

/** The waiting times of a season, in days, each from the defaults and the keeper's own clutches. */
export interface Waits {
  readonly ovulationToShed: Learned;
  readonly shedToEggs: Learned;
  /** Days at the reference temperature from laying to the first pip: see `incubation/thermal-time.ts`. */
  readonly eggsToPip: Learned;
}

/** What is known of one clutch of the past. */
export interface PastClutch {
  readonly ovulatedOn: IsoDay | null;
  readonly shedOn: IsoDay | null;
  readonly laidOn: IsoDay;
  /** Days at the reference temperature until the first pip; null where none was recorded. */
  readonly pipDays: number | null;
}

/* Defaults: common practice, no source. Ovulation to pre-lay shed 2 to 4 weeks; pre-lay shed to eggs about 30 days, 25 to 50
   seen; first pip on days 55 to 60. */
const OVULATION_TO_SHED = bellOdds(20, 4.5, 7, 45);
const SHED_TO_EGGS = skewedOdds(22, 31, 0.57, 23, 70);
const EGGS_TO_PIP = bellOdds(57.5, 1.8, 45, 75);

/** The defaults count as much as so many clutches of the keeper's own. */
export const DEFAULT_COUNTS_AS = 6;
/** Bandwidth of the kernel that smooths observations, days. */
const SPREAD_DAYS = 2;

/**
 * The waiting times as they become the keeper's own.
 *
 * @example learnWaits([{ ovulatedOn: '2026-02-01', shedOn: '2026-02-19', laidOn: '2026-03-21', pipDays: 55 }]).shedToEggs.observations // 1
 */
export function learnWaits(past: readonly PastClutch[]): Waits {
  const between = (from: IsoDay | null, to: IsoDay | null): number[] =>
    from === null || to === null || to < from ? [] : [daysBetween(from, to)];
  const from = (prior: typeof SHED_TO_EGGS, observed: readonly number[], spread: number): Learned =>
    learn(prior, observed, DEFAULT_COUNTS_AS, spread);
  return {
    ovulationToShed: from(
      OVULATION_TO_SHED,
      past.flatMap((one) => between(one.ovulatedOn, one.shedOn)),
      SPREAD_DAYS,
    ),
    shedToEggs: from(
      SHED_TO_EGGS,
      past.flatMap((one) => between(one.shedOn, one.laidOn)),
      SPREAD_DAYS,
    ),
    eggsToPip: from(
      EGGS_TO_PIP,
      past.flatMap((one) => (one.pipDays === null ? [] : [one.pipDays])),
      1,
    ),
  };
}
