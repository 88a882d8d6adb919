import { CostError } from '../errors.ts';
import { divide, multiply, sumTo, tableSize, total, type Factor } from './factor.ts';

export interface Marginals {
  /** Natural logarithm of the sum over all states; -Infinity where no state is possible. */
  readonly logTotal: number;
  /** Variable -> probability of each of its states. Empty where no state is possible. */
  readonly marginals: readonly Float64Array[];
}

interface Bucket {
  readonly variable: number;
  readonly scope: readonly number[];
  readonly separator: readonly number[];
  readonly factors: Factor[];
  parent: number;
  belief?: Factor;
  message?: Factor;
}

/** The largest table an exact run may build: 2^22 entries are 32 MiB. */
export const TABLE_LIMIT = 2 ** 22;

/**
 * All single-variable marginals of a product of factors, exactly, by bucket elimination upwards and one pass back down
 * (a junction tree whose cliques are the buckets: Dechter 1999, Artificial Intelligence 113; Lauritzen & Spiegelhalter
 * 1988, J. R. Statist. Soc. B 50).
 *
 * Cost: the sum of the bucket tables, each the product of the sizes of a variable and its neighbours when eliminated.
 *
 * @param sizes - number of states of each variable; variables are 0 to sizes.length-1
 * @throws CostError when the greedy order needs a larger table than `limit`
 */
export function eliminate(
  sizes: readonly number[],
  factors: readonly Factor[],
  limit = TABLE_LIMIT,
): Marginals {
  const buckets = orderBuckets(sizes, factors, limit);
  const bucketOf = new Map(buckets.map((bucket, index) => [bucket.variable, index]));
  let logTotal = 0;
  for (const factor of factors) {
    const first = Math.min(...factor.vars.map((variable) => bucketOf.get(variable)!));
    if (Number.isFinite(first)) buckets[first]!.factors.push(factor);
    else logTotal += Math.log(total(factor));
  }
  for (const bucket of buckets) {
    bucket.belief = multiply(bucket.factors, bucket.scope, sizes);
    const message = sumTo(bucket.belief, bucket.separator, sizes);
    // Each message is scaled to 1, so that hundreds of small likelihoods do not underflow.
    const scale = total(message);
    logTotal += Math.log(scale);
    if (scale === 0) return { logTotal: -Infinity, marginals: [] };
    message.table.forEach((value, i) => (message.table[i] = value / scale));
    bucket.message = message;
    if (bucket.separator.length > 0) {
      bucket.parent = Math.min(...bucket.separator.map((variable) => bucketOf.get(variable)!));
      buckets[bucket.parent]!.factors.push(message);
    }
  }
  if (logTotal === -Infinity) return { logTotal, marginals: [] };
  return { logTotal, marginals: readMarginals(buckets, sizes) };
}

/** Downward pass: each bucket learns from its parent what the rest of the network says of their shared variables. */
function readMarginals(buckets: readonly Bucket[], sizes: readonly number[]): Float64Array[] {
  const marginals: Float64Array[] = sizes.map(() => new Float64Array());
  for (const bucket of buckets.toReversed()) {
    if (bucket.parent >= 0) {
      const outside = divide(
        sumTo(buckets[bucket.parent]!.belief!, bucket.separator, sizes),
        bucket.message!,
      );
      bucket.belief = multiply([bucket.belief!, outside], bucket.scope, sizes);
    }
    const marginal = sumTo(bucket.belief!, [bucket.variable], sizes).table;
    const sum = marginal.reduce((a, b) => a + b, 0);
    marginals[bucket.variable] = marginal.map((value) => value / sum);
    // Keep beliefs on one scale on the way down.
    bucket.belief!.table.forEach((value, i) => (bucket.belief!.table[i] = value / sum));
  }
  return marginals;
}

/** Greedy order: always the variable whose elimination builds the smallest table (min-weight, Kjærulff 1990). */
function orderBuckets(sizes: readonly number[], factors: readonly Factor[], limit: number): Bucket[] {
  const neighbours = sizes.map(() => new Set<number>());
  for (const { vars } of factors) {
    for (const a of vars) for (const b of vars) if (a !== b) neighbours[a]!.add(b);
  }
  const weightOf = (variable: number): number => tableSize([variable, ...neighbours[variable]!], sizes);
  const queue = new WeightQueue(sizes.map((_, variable) => weightOf(variable)));
  const buckets: Bucket[] = [];
  for (let variable = queue.pop(); variable >= 0; variable = queue.pop()) {
    const separator = [...neighbours[variable]!];
    const weight = weightOf(variable);
    if (weight > limit) throw new CostError(weight, limit);
    for (const a of separator) {
      neighbours[a]!.delete(variable);
      for (const b of separator) if (a !== b) neighbours[a]!.add(b);
    }
    for (const a of separator) queue.update(a, weightOf(a));
    buckets.push({ variable, scope: [variable, ...separator], separator, factors: [], parent: -1 });
  }
  return buckets;
}

/** Smallest weight first, ties by variable. Outdated entries are skipped when they come up. */
class WeightQueue {
  private readonly current: number[];
  private readonly done: boolean[];
  private readonly byWeight = new Map<number, number[]>();
  private weights: number[] = [];

  constructor(weights: readonly number[]) {
    this.current = [...weights];
    this.done = weights.map(() => false);
    weights.forEach((weight, variable) => this.insert(weight, variable));
  }

  private insert(weight: number, variable: number): void {
    const list = this.byWeight.get(weight);
    if (list) list.push(variable);
    else {
      this.byWeight.set(weight, [variable]);
      // Few distinct weights occur, so a sorted list of them is enough.
      const at = this.weights.findIndex((other) => other > weight);
      this.weights.splice(at < 0 ? this.weights.length : at, 0, weight);
    }
  }

  update(variable: number, weight: number): void {
    if (this.current[variable] === weight) return;
    this.current[variable] = weight;
    this.insert(weight, variable);
  }

  pop(): number {
    while (this.weights.length > 0) {
      const weight = this.weights[0]!;
      const list = this.byWeight.get(weight)!;
      while (list.length > 0) {
        const variable = list.pop()!;
        if (!this.done[variable] && this.current[variable] === weight) {
          this.done[variable] = true;
          return variable;
        }
      }
      this.byWeight.delete(weight);
      this.weights.shift();
    }
    return -1;
  }
}
