import { mixedBinomial, type Scenarios } from '../numeric/mixed-binomial.ts';

/** The young of one pair that were looked at, and how many of them are what was wanted. */
export interface LuckPair {
  /** What the parents may be, and the chance of the target per hatchling with it. The weights add up to 1. */
  readonly scenarios: Scenarios;
  readonly young: number;
  readonly hits: number;
}

export interface Luck {
  readonly young: number;
  readonly hits: number;
  /** The mean of hits that was to be expected. */
  readonly expected: number;
  /** The chance of as many hits or more. */
  readonly atLeast: number;
  /** The chance of as many hits or fewer. */
  readonly atMost: number;
}

/** A tail of chance below this is called unusual: one in twenty, as is usual in statistics. */
export const UNUSUAL = 0.05;

/** @example luckKind(luckOf([{ scenarios: [{ weight: 1, p: 0.25 }], young: 12, hits: 0 }])) // "unlucky" */
export const luckKind = ({ atLeast, atMost }: Luck): 'lucky' | 'unlucky' | 'as-expected' =>
  atLeast < UNUSUAL ? 'lucky' : atMost < UNUSUAL ? 'unlucky' : 'as-expected';

/**
 * What hatched against the odds, over several pairs. All young of a pair share its parents: the number of hits of a pair is a
 * mixture of binomials over what its parents may be; pairs are independent, so that the sum is their convolution (textbook).
 *
 * @param pairs - each pair once, with all its young; hits at most the young
 * @example luckOf([{ scenarios: [{ weight: 1, p: 0.25 }], young: 2, hits: 0 }]) // {"young":2,"hits":0,"expected":0.5,"atLeast":1,"atMost":0.5625}
 */
export function luckOf(pairs: readonly LuckPair[]): Luck {
  const young = pairs.reduce((sum, pair) => sum + pair.young, 0);
  const hits = pairs.reduce((sum, pair) => sum + pair.hits, 0);
  const odds = pairs.map((pair) => mixedBinomial(pair.scenarios, pair.young)).reduce(convolved, [1]);
  const expected = odds.reduce((sum, p, count) => sum + p * count, 0);
  const sumOf = (part: readonly number[]): number =>
    Math.min(
      1,
      part.reduce((sum, p) => sum + p, 0),
    );
  return { young, hits, expected, atLeast: sumOf(odds.slice(hits)), atMost: sumOf(odds.slice(0, hits + 1)) };
}

function convolved(a: readonly number[], b: readonly number[]): number[] {
  const sum = new Array<number>(a.length + b.length - 1).fill(0);
  a.forEach((p, i) => b.forEach((q, j) => (sum[i + j]! += p * q)));
  return sum;
}
