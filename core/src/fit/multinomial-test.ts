import { CostError } from '../errors.ts';
import { logFactorials } from './log-factorials.ts';

export interface FitTest {
  readonly expected: readonly number[];
  /** The chance of a result at least as unlikely as the one seen, were the odds right. */
  readonly p: number;
}

/** Results that are walked through at most. */
const MOST_RESULTS = 4e7;

/** Two probabilities closer than this, relatively, are the same but for rounding. */
const TIE = 1e-9;

/**
 * The exact test of counts against odds: adds up the probabilities of all results that are no likelier than the one seen
 * (the exact multinomial test: Read & Cressie 1988, Goodness-of-Fit Statistics, section 5; the binomial case is R's
 * `binom.test`, two-sided).
 *
 * @param seen - whole counts, one for each kind
 * @param odds - probabilities, one for each kind, adding up to 1
 * @throws CostError where there are too many possible results to walk through
 * @example multinomialTest([3, 5], [0.5, 0.5]).p.toFixed(4) // "0.7266"
 */
export function multinomialTest(seen: readonly number[], odds: readonly number[]): FitTest {
  const total = seen.reduce((a, b) => a + b, 0);
  const expected = odds.map((p) => p * total);
  if (seen.some((count, k) => count > 0 && odds[k] === 0)) return { expected, p: 0 };
  const kinds = odds
    .map((p, k) => ({ logP: Math.log(p), count: seen[k]! }))
    .filter(({ logP }) => logP > -Infinity);
  if (kinds.length < 2) return { expected, p: 1 };
  const results = countResults(total, kinds.length);
  if (results > MOST_RESULTS) throw new CostError(results, MOST_RESULTS);
  const logs = logFactorials(total);
  const term = (k: number, count: number): number => count * kinds[k]!.logP - logs[count]!;
  const limit = kinds.reduce((sum, { count }, k) => sum + term(k, count), 0) + TIE;
  let sum = 0;
  const walk = (k: number, left: number, log: number): void => {
    if (k === kinds.length - 1) {
      const last = log + term(k, left);
      if (last <= limit) sum += Math.exp(last + logs[total]!);
      return;
    }
    for (let count = 0; count <= left; count++) walk(k + 1, left - count, log + term(k, count));
  };
  walk(0, total, 0);
  return { expected, p: Math.min(1, sum) };
}

/** How many ways there are to share `total` among `kinds`: (total + kinds - 1 over kinds - 1). */
function countResults(total: number, kinds: number): number {
  let count = 1;
  for (let k = 1; k < kinds; k++) count = (count * (total + k)) / k;
  return count;
}
