import { CostError } from '../errors.ts';
import type { Factor } from './factor.ts';
import { solve, toComponent } from './junction-tree.ts';

/** Factors that hang together through their variables, and what was found for them. */
export interface Part {
  readonly factors: readonly Factor[];
  /** Natural logarithm of the sum over all states; -Infinity where nothing is possible. */
  readonly logTotal: number;
  /** Beside `factors`: the marginal over each one's scope. */
  readonly marginals: readonly Float64Array[];
  /** Where the marginals are estimates: the same from each of several independent runs of equal length. */
  readonly runs?: readonly (readonly Float64Array[])[];
  /** Entries of the largest table that was built, or would have had to be. */
  readonly largest: number;
}

/** Stands in where the exact answer is out of reach. */
export type Estimator = (
  factors: readonly Factor[],
) => Pick<Part, 'logTotal' | 'marginals'> & { readonly runs: readonly (readonly Float64Array[])[] };

/** Groups factors that share variables, directly or through others. In the order of the first factor of each group. */
export function groupFactors(factors: readonly Factor[]): Factor[][] {
  const leader = Int32Array.from(factors, (_, at) => at);
  const find = (at: number): number => {
    let root = at;
    while (leader[root] !== root) root = leader[root]!;
    while (leader[at] !== root) {
      const next = leader[at]!;
      leader[at] = root;
      at = next;
    }
    return root;
  };
  const seen = new Map<number, number>();
  factors.forEach(({ scope }, at) => {
    for (const variable of scope) {
      const other = seen.get(variable);
      if (other === undefined) seen.set(variable, at);
      else {
        const a = find(other);
        const b = find(at);
        if (a < b) leader[b] = a;
        else leader[a] = b;
      }
    }
  });
  const groups = new Map<number, Factor[]>();
  factors.forEach((factor, at) => {
    const root = find(at);
    const group = groups.get(root);
    if (group) group.push(factor);
    else groups.set(root, [factor]);
  });
  return [...groups.values()];
}

/** @throws CostError where a part is too wide and nothing stands in */
export function solvePart(factors: readonly Factor[], estimate?: Estimator): Part {
  try {
    return { factors, ...solve(toComponent(factors)) };
  } catch (error) {
    if (!(error instanceof CostError) || !estimate) throw error;
    return { factors, ...estimate(factors), largest: error.estimate };
  }
}

/** Of the mean of equally long independent runs: their spread over the root of their number. */
export function standardErrors(runs: readonly Float64Array[]): Float64Array {
  return runs[0]!.map((_, cell) => {
    const mean = runs.reduce((sum, run) => sum + run[cell]!, 0) / runs.length;
    const squares = runs.reduce((sum, run) => sum + (run[cell]! - mean) ** 2, 0);
    return Math.sqrt(squares / (runs.length - 1) / runs.length);
  });
}
