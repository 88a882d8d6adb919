/** The standard normal deviate of a two-sided 95% interval (any table of the normal distribution). */
const Z_95 = 1.959963984540054;

export interface Share {
  readonly of: number;
  readonly count: number;
  /** Null where nothing was counted. */
  readonly share: number | null;
  /** The 95% interval. */
  readonly low: number;
  readonly high: number;
}

/**
 * A share with its 95% interval by the score method (Wilson 1927, JASA 22, 209-212), which stays honest for few eggs, where
 * plus-minus intervals do not.
 *
 * @example shareOf(0, 0) // {"of":0,"count":0,"share":null,"low":0,"high":1}
 */
export function shareOf(count: number, of: number): Share {
  if (of === 0) return { of, count, share: null, low: 0, high: 1 };
  const p = count / of;
  const zz = Z_95 ** 2;
  const middle = (p + zz / (2 * of)) / (1 + zz / of);
  const half = (Z_95 / (1 + zz / of)) * Math.sqrt((p * (1 - p)) / of + zz / (4 * of ** 2));
  // At the ends the limit is exact: rounding would leave a hair.
  return {
    of,
    count,
    share: p,
    low: count === 0 ? 0 : Math.max(0, middle - half),
    high: count === of ? 1 : Math.min(1, middle + half),
  };
}
