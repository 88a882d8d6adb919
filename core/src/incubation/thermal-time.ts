/**
 * Eggs develop faster when warmer. Within the range in which they are incubated the rate is taken as linear in the
 * temperature above a base (degree-days: the usual model for development below the optimum; Trudgill et al. 2005, Annals of
 * Applied Biology 146, 1-14). Base and reference for this species are assumptions of ours, fitted to days 55 to 60 at 31.1 to
 * 31.7 °C (common practice, no source).
 */
export const REFERENCE_C = 31.4;
export const BASE_C = 20;
/** Warmer than this the line no longer holds: no faster development is promised. */
const WARMEST_C = 33;

/**
 * Days at the reference temperature that one day at this temperature is worth.
 *
 * @example rateAt(31.5).toFixed(4) // "1.0088"
 */
export function rateAt(celsius: number): number {
  return Math.max(0, Math.min(celsius, WARMEST_C) - BASE_C) / (REFERENCE_C - BASE_C);
}

/** The mean temperature of one day in the incubator, by day of incubation (0: the day of laying). */
export type DailyMeans = ReadonlyMap<number, number>;

/**
 * Days at the reference temperature gone by after `days` days. A day that was not measured counts at the temperature that
 * was set.
 *
 * @example referenceDays(10, new Map(), 31.5).toFixed(2) // "10.09"
 */
export function referenceDays(days: number, means: DailyMeans, setC: number): number {
  let sum = 0;
  for (let day = 0; day < days; day++) sum += rateAt(means.get(day) ?? setC);
  return sum;
}
