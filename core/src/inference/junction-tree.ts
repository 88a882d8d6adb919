import { CostError } from '../errors.ts';
import { eliminationOrder, type EliminationOrder } from './elimination-order.ts';
import { seededRandom } from '../numeric/random.ts';
import type { Factor } from './factor.ts';
import { drawState, marginal, multiplyInto, normalise, tableSize } from './table-arithmetic.ts';

/** How much an exact answer may cost. */
export interface CostLimits {
  /** Entries of the largest single table, and of all tables of one component together. */
  readonly table: number;
  readonly total: number;
  /** Entries that are passed through for joint marginals that no table holds. */
  readonly joints: number;
}

/** What memory holds: 2^24 entries are 128 MiB. */
export const MOST: CostLimits = { table: 2 ** 24, total: 2 ** 26, joints: Infinity };
/** What takes a second or two: dearer than this, an estimate is better where there can be one. */
export const AFFORDABLE: CostLimits = { table: 2 ** 21, total: 2 ** 22, joints: 2 ** 28 };

/** A table wider than this is worth looking for a better order first. */
const WIDE = 2 ** 9;
/** And wider than this, worth this many more tries. */
const WIDER = 2 ** 14;
const TRIES = 24;
/** Ties that the search for better orders may look at: about half a second. */
const SEARCH = 4e8;
/** No more is counted: an order that needs this many entries is as far out of reach as any. */
const HOPELESS = 2 ** 32;

/** A product of factors whose variables hang together, numbered from 0. */
export interface Component {
  readonly sizes: Int32Array;
  /** The variables of each factor, in the order of its axes. */
  readonly scopes: readonly Int32Array[];
  readonly tables: readonly Float64Array[];
}

/** Numbers the variables of factors that hang together. @param numbers - takes the number of each variable */
export function toComponent(
  factors: readonly Factor[],
  numbers: Map<number, number> = new Map<number, number>(),
): Component {
  const sizes: number[] = [];
  const scopes = factors.map((factor) => {
    const scope = new Int32Array(factor.scope.length);
    for (let axis = 0; axis < scope.length; axis++) {
      let number = numbers.get(factor.scope[axis]!);
      if (number === undefined) {
        number = sizes.push(factor.sizes[axis]!) - 1;
        numbers.set(factor.scope[axis]!, number);
      }
      scope[axis] = number;
    }
    return scope;
  });
  return { sizes: Int32Array.from(sizes), scopes, tables: factors.map((factor) => factor.table) };
}

/**
 * Of several greedy orders, where the first makes wide tables, the one with the fewest entries in all.
 *
 * @throws CostError where every try is hopeless; its estimate is then only known to be larger
 */
export function chooseOrder({ sizes, scopes }: Pick<Component, 'sizes' | 'scopes'>): EliminationOrder {
  let best = eliminationOrder(sizes, scopes, { greed: 'smallest-table', stopAt: HOPELESS });
  if (best && best.largest <= WIDE) return best;
  const random = seededRandom(1);
  const budget = { left: SEARCH };
  for (let n = 0; n < TRIES && budget.left > 0; n++) {
    if ((best?.largest ?? HOPELESS) <= (n < 1 ? WIDE : WIDER)) break;
    const greed = n % 2 === 0 ? 'fewest-ties' : 'smallest-table';
    const stopAt = best?.total ?? HOPELESS;
    const blurred = n === 0 ? {} : { random };
    best = eliminationOrder(sizes, scopes, { greed, stopAt, budget, ...blurred }) ?? best;
  }
  if (!best) throw new CostError(HOPELESS, MOST.table);
  return best;
}

/**
 * The tree of tables that exact summation builds: one for each variable, holding it and what it was tied to when it left
 * (bucket elimination: Dechter 1999, Artificial Intelligence 113; as a junction tree: Lauritzen & Spiegelhalter 1988,
 * J. R. Statist. Soc. B 50).
 */
export class JunctionTree {
  readonly component: Component;
  /** Of each bucket: its variables, the one that leaves last in line (and so fastest in the table). */
  readonly scopes: readonly Int32Array[];
  /** The same without the last. */
  readonly separators: readonly Int32Array[];
  /** The bucket that each bucket tells; -1 for the last. */
  readonly parent: Int32Array;
  /** In which bucket each variable leaves. */
  readonly bucket: Int32Array;
  /** After `distribute`: the marginal of each bucket, over its scope. */
  readonly beliefs: Float64Array[] = [];
  private readonly order: EliminationOrder;
  private readonly members: number[][];
  private readonly messages: Float64Array[] = [];
  logTotal = 0;

  /** @throws CostError where the order needs larger tables than allowed */
  constructor(component: Component, order = chooseOrder(component), limits: CostLimits = MOST) {
    if (order.largest > limits.table) throw new CostError(order.largest, limits.table);
    if (order.total > limits.total) throw new CostError(order.total, limits.total);
    this.component = component;
    this.order = order;
    const count = component.sizes.length;
    const position = new Int32Array(count);
    order.order.forEach((variable, at) => (position[variable] = at));
    this.bucket = position;
    this.separators = order.separators;
    this.scopes = order.separators.map((separator, at) => {
      const scope = new Int32Array(separator.length + 1);
      scope.set(separator);
      scope[separator.length] = order.order[at]!;
      return scope;
    });
    this.parent = Int32Array.from(order.separators, (separator) => {
      let first = -1;
      for (const variable of separator)
        if (first < 0 || position[variable]! < first) first = position[variable]!;
      return first;
    });
    this.members = order.separators.map(() => []);
    component.scopes.forEach((scope, factor) => {
      let first = count;
      for (let i = 0; i < scope.length; i++) first = Math.min(first, position[scope[i]!]!);
      this.members[first]!.push(factor);
    });
  }

  get largest(): number {
    return this.order.largest;
  }

  /** Sums the variables out, one after the other. @returns false where no state is possible */
  collect(): boolean {
    const { sizes, tables, scopes } = this.component;
    const inbox: { scope: Int32Array; table: Float64Array }[][] = this.scopes.map(() => []);
    for (let b = 0; b < this.scopes.length; b++) {
      const scope = this.scopes[b]!;
      const belief = new Float64Array(tableSize(scope, sizes)).fill(1);
      for (const factor of this.members[b]!)
        multiplyInto(belief, scope, scopes[factor]!, tables[factor]!, sizes);
      for (const message of inbox[b]!) multiplyInto(belief, scope, message.scope, message.table, sizes);
      const own = sizes[scope[scope.length - 1]!]!;
      const message = new Float64Array(belief.length / own);
      let sum = 0;
      for (let at = 0, from = 0; at < message.length; at++) {
        let total = 0;
        for (let s = 0; s < own; s++) total += belief[from++]!;
        message[at] = total;
        sum += total;
      }
      if (sum === 0) {
        this.logTotal = -Infinity;
        return false;
      }
      // Each message is scaled to add up to 1, so that thousands of small likelihoods do not underflow.
      this.logTotal += Math.log(sum);
      for (let at = 0; at < message.length; at++) message[at]! /= sum;
      this.beliefs.push(belief);
      this.messages.push(message);
      const parent = this.parent[b]!;
      if (parent >= 0) inbox[parent]!.push({ scope: this.separators[b]!, table: message });
    }
    return true;
  }

  /** Tells every table, from the last down to the first, what the rest of the tree says. After `collect`. */
  distribute(): void {
    const { sizes } = this.component;
    for (let b = this.scopes.length - 1; b >= 0; b--) {
      const scope = this.scopes[b]!;
      const belief = this.beliefs[b]!;
      const parent = this.parent[b]!;
      const own = sizes[scope[scope.length - 1]!]!;
      if (parent >= 0) {
        const outside = marginal(this.beliefs[parent]!, this.scopes[parent]!, this.separators[b]!, sizes);
        const message = this.messages[b]!;
        for (let at = 0, into = 0; at < outside.length; at++) {
          const ratio = message[at]! === 0 ? 0 : outside[at]! / message[at]!;
          for (let s = 0; s < own; s++) belief[into++]! *= ratio;
        }
      }
      normalise(belief);
    }
  }

  /** The marginal of every factor. After `distribute`. */
  marginals(): Float64Array[] {
    const { sizes, scopes } = this.component;
    const found: Float64Array[] = new Array<Float64Array>(scopes.length);
    this.members.forEach((factors, b) => {
      for (const factor of factors)
        found[factor] = marginal(this.beliefs[b]!, this.scopes[b]!, scopes[factor]!, sizes);
    });
    return found;
  }

  /** Draws one joint state of all variables. After `collect`, instead of `distribute`. */
  draw(random: () => number): Int32Array {
    const { sizes } = this.component;
    const state = new Int32Array(sizes.length);
    for (let b = this.scopes.length - 1; b >= 0; b--) {
      const scope = this.scopes[b]!;
      let start = 0;
      for (let axis = 0; axis < scope.length - 1; axis++)
        start = start * sizes[scope[axis]!]! + state[scope[axis]!]!;
      const own = sizes[scope[scope.length - 1]!]!;
      start *= own;
      state[scope[scope.length - 1]!] = drawState(this.beliefs[b]!, start, own, random);
    }
    return state;
  }
}

/** Only the probability of everything. */
export function logTotal(component: Component): number {
  const tree = new JunctionTree(component);
  tree.collect();
  return tree.logTotal;
}
