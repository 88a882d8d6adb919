import { CostError } from '../errors.ts';
import type { Axes, Factor } from './factor.ts';
import { AFFORDABLE, MOST, toComponent } from './junction-tree.ts';
import { solve } from './solve.ts';

/** Factors that hang together through their variables, and what was found for them. */
export interface Part {
  readonly factors: readonly Factor[];
  /** Natural logarithm of the sum over all states; -Infinity where nothing is possible. */
  readonly logTotal: number;
  /** Beside `factors`: the marginal over each one's scope. */
  readonly marginals: readonly Float64Array[];
  /** Joint marginals of variables that no factor holds together, by {@link jointKey}. */
  readonly joints: Joints;
  /** Where they are estimates: the same from each of several independent runs of equal length. */
  readonly runs?: readonly Pick<Part, 'marginals' | 'joints'>[];
  /** Entries of the largest table that was built, or would have had to be. */
  readonly largest: number;
}

export type Joints = ReadonlyMap<string, Float64Array>;

/** An estimate of a part. */
export interface Estimate {
  readonly logTotal: number;
  readonly marginals: readonly Float64Array[];
  /** Beside what was asked. */
  readonly joints: readonly Float64Array[];
  /** The same from each of several independent runs of equal length. */
  readonly runs: readonly Pick<Estimate, 'marginals' | 'joints'>[];
}

/** Stands in where the exact answer is out of reach. */
export type Estimator = (factors: readonly Factor[], asked: Asked) => Estimate;

/** Variables whose joint marginal is asked for. */
export type Asked = ReadonlyMap<string, Axes>;

export const jointKey = (variables: readonly number[]): string => variables.join();

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

/**
 * @param asked - variables of these factors
 * @throws CostError where a part is too wide and nothing stands in
 */
export function solvePart(factors: readonly Factor[], asked: Asked, estimate?: Estimator): Part {
  const keys = [...asked.keys()];
  const joints = (tables: readonly Float64Array[]): Joints =>
    new Map(tables.map((table, n) => [keys[n]!, table]));
  try {
    const numbers = new Map<number, number>();
    const component = toComponent(factors, numbers);
    const wanted = [...asked.values()].map(({ scope }) =>
      Int32Array.from(scope, (variable) => numbers.get(variable)!),
    );
    const solution = solve(component, wanted, estimate ? AFFORDABLE : MOST);
    return { factors, ...solution, joints: joints(solution.joints) };
  } catch (error) {
    if (!(error instanceof CostError) || !estimate) throw error;
    const found = estimate(factors, asked);
    const runs = found.runs.map((run) => ({ marginals: run.marginals, joints: joints(run.joints) }));
    return { factors, ...found, joints: joints(found.joints), runs, largest: error.estimate };
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
