/** The chances of whole numbers (days, eggs): `odds[i]` is the chance of `first + i`. They add up to 1. */
export interface WholeOdds {
  readonly first: number;
  readonly odds: readonly number[];
}

/** What was learned from observations, and from how many. */
export interface Learned {
  readonly odds: WholeOdds;
  readonly observations: number;
}

/**
 * Weights of whole numbers, made to add up to 1.
 *
 * @param weight - never negative, and above 0 somewhere
 */
export function wholeOdds(first: number, last: number, weight: (value: number) => number): WholeOdds {
  const weights = Array.from({ length: last - first + 1 }, (_, i) => weight(first + i));
  const total = weights.reduce((a, b) => a + b, 0);
  return { first, odds: weights.map((one) => one / total) };
}

/** The density of the normal distribution, up to a factor. */
const bell = (distance: number, spread: number): number => Math.exp(-((distance / spread) ** 2) / 2);

/**
 * A bell about a mean, cut off at the ends.
 *
 * @example bellOdds(5, 1, 5, 5) // {"first":5,"odds":[1]}
 */
export function bellOdds(mean: number, spread: number, first: number, last: number): WholeOdds {
  return wholeOdds(first, last, (value) => bell(value - mean, spread));
}

/** A log-normal distribution that starts at `start` and has its middle at `median`; `spread` is that of the logarithm. */
export function skewedOdds(
  start: number,
  median: number,
  spread: number,
  first: number,
  last: number,
): WholeOdds {
  return wholeOdds(first, last, (value) =>
    value <= start ? 0 : bell(Math.log(value - start) - Math.log(median - start), spread) / (value - start),
  );
}

/**
 * What is expected next after some observations: the prior counts as `priorWeight` observations, each real one as a narrow
 * bell about itself. It is the predictive distribution of a Dirichlet process (Ferguson 1973, Annals of Statistics 1),
 * smoothed by a kernel; with many observations it becomes their own distribution.
 *
 * @param spread - of the bell, in the unit of the numbers; 0 leaves each observation as it is
 * @example learn({ first: 5, odds: [0.5, 0.5] }, [5, 6, 6], 6, 0).observations // 3
 */
export function learn(
  prior: WholeOdds,
  observed: readonly number[],
  priorWeight: number,
  spread: number,
): Learned {
  const last = prior.first + prior.odds.length - 1;
  const inside = observed.map((value) => Math.min(last, Math.max(prior.first, Math.round(value))));
  const kernels = inside.map((value) =>
    spread > 0
      ? bellOdds(value, spread, prior.first, last)
      : wholeOdds(prior.first, last, (other) => (other === value ? 1 : 0)),
  );
  const total = priorWeight + observed.length;
  const odds = prior.odds.map(
    (p, i) => (p * priorWeight + kernels.reduce((sum, kernel) => sum + kernel.odds[i]!, 0)) / total,
  );
  return { odds: { first: prior.first, odds }, observations: observed.length };
}

/**
 * The chance of a number above `value`.
 *
 * @example chanceAbove({ first: 1, odds: [0.5, 0.5] }, 1) // 0.5
 */
export function chanceAbove({ first, odds }: WholeOdds, value: number): number {
  let sum = 0;
  for (let i = Math.max(0, Math.floor(value) - first + 1); i < odds.length; i++) sum += odds[i]!;
  return Math.min(1, sum);
}

/**
 * The smallest number that is not exceeded with probability `q`.
 *
 * @example quantile({ first: 1, odds: [0.5, 0.5] }, 0.9) // 2
 */
export function quantile({ first, odds }: WholeOdds, q: number): number {
  let sum = 0;
  for (const [i, p] of odds.entries()) {
    sum += p;
    if (sum >= q - 1e-12) return first + i;
  }
  return first + odds.length - 1;
}

/** @example meanOf({ first: 1, odds: [0.5, 0.5] }) // 1.5 */
export function meanOf({ first, odds }: WholeOdds): number {
  return odds.reduce((sum, p, i) => sum + p * (first + i), 0);
}

/**
 * The distribution once it is known that the number is at least `value`; null where that has no chance.
 *
 * @example givenAtLeast({ first: 1, odds: [0.5, 0.5] }, 2) // {"first":2,"odds":[1]}
 */
export function givenAtLeast(whole: WholeOdds, value: number): WholeOdds | null {
  const from = Math.max(0, Math.ceil(value) - whole.first);
  const rest = whole.odds.slice(from);
  const total = rest.reduce((a, b) => a + b, 0);
  return total <= 0 ? null : { first: whole.first + from, odds: rest.map((p) => p / total) };
}

/**
 * The distribution of a sum of two independent numbers.
 *
 * @example sumOf({ first: 1, odds: [0.5, 0.5] }, { first: 1, odds: [1] }) // {"first":2,"odds":[0.5,0.5]}
 */
export function sumOf(a: WholeOdds, b: WholeOdds): WholeOdds {
  const odds = new Array<number>(a.odds.length + b.odds.length - 1).fill(0);
  for (const [i, p] of a.odds.entries()) for (const [j, q] of b.odds.entries()) odds[i + j]! += p * q;
  return { first: a.first + b.first, odds };
}

/**
 * Draws a number by a die from [0, 1).
 *
 * @example drawWhole({ first: 1, odds: [0.5, 0.5] }, 0.7) // 2
 */
export function drawWhole({ first, odds }: WholeOdds, die: number): number {
  let left = die;
  for (const [i, p] of odds.entries()) {
    left -= p;
    if (left < 0) return first + i;
  }
  return first + odds.length - 1;
}
