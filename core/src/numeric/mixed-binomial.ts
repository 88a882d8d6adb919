/** What may be the case, and the chance of a hit with it. The weights add up to 1. */
export type Scenarios = readonly { readonly weight: number; readonly p: number }[];

/**
 * The chance of each number of hits among n, where all of them share one of several scenarios: a mixture of binomials.
 *
 * @param n - few hundred at most: the number of ways to choose has to fit into a number
 * @returns the chance of 0, 1, …, n hits
 */
export function mixedBinomial(scenarios: Scenarios, n: number): number[] {
  let choose = 1;
  return Array.from({ length: n + 1 }, (_, k) => {
    if (k > 0) choose = (choose * (n - k + 1)) / k;
    return scenarios.reduce((sum, { weight, p }) => sum + weight * choose * p ** k * (1 - p) ** (n - k), 0);
  });
}
