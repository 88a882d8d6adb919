import type { JunctionTree } from './junction-tree.ts';
import { marginal, multiplyInto, positionsIn, tableSize } from './table-arithmetic.ts';

/** A table with the variables that it speaks of. */
interface Spoken {
  readonly scope: Int32Array;
  readonly table: Float64Array;
}

/** From one bucket to the next: the variables that both hold, and what the next one says given those. */
interface Step {
  readonly shared: Int32Array;
  /** Entries of a table over `shared`. */
  readonly width: number;
  /** Beside the next bucket's table: where each entry falls in a table over `shared`. */
  readonly inward: Int32Array;
  readonly given: Float64Array;
}

/** How a variable reaches a bucket that does not hold it: jointly with what the step shares. */
interface Arrival {
  readonly step: Step;
  /** Over the variable, then `step.shared`; null where it says nothing of those any more. */
  readonly message: Float64Array | null;
}

/** So little, relatively, is rounding. */
const ROUNDING = 3e-14;

/**
 * The joint marginals of sets of variables, also where no bucket holds them all: tables between their buckets are joined by
 * the variables that have to come along (Koller & Friedman 2009, Probabilistic graphical models, 10.3.3). Sets with the same
 * first variable share its way.
 *
 * @param tree - after `distribute`
 * @returns beside `asked`, each with its axes in the order asked
 */
export function jointMarginals(tree: JunctionTree, asked: readonly Int32Array[]): Float64Array[] {
  const found: Float64Array[] = new Array<Float64Array>(asked.length);
  const steps = new Map<number, Step>();
  for (const [first, places] of byFirst(asked)) {
    const reader = new Companion(tree, first, steps);
    for (const n of places) found[n] = reader.joint(asked[n]!);
  }
  return found;
}

/** The places of sets of variables, by the first of each. */
function byFirst(asked: readonly Int32Array[]): Map<number, number[]> {
  const places = new Map<number, number[]>();
  asked.forEach((set, n) => {
    const others = places.get(set[0]!);
    if (others) others.push(n);
    else places.set(set[0]!, [n]);
  });
  return places;
}

/** Entries that {@link jointMarginals} passes through. @param tree - before or after `collect` */
export function costOfJoints(tree: JunctionTree, asked: readonly Int32Array[]): number {
  let cost = 0;
  for (const [first, places] of byFirst(asked)) {
    const reader = new Companion(tree, first, new Map());
    const seen = new Set<number>();
    for (const n of places) cost += reader.costOf(asked[n]!.subarray(1), seen);
  }
  return cost;
}

/** How one variable goes together with those of every bucket, as far as that is read. */
class Companion {
  private readonly tree: JunctionTree;
  private readonly sizes: Int32Array;
  private readonly variable: number;
  private readonly states: number;
  private ownChances: Float64Array | null = null;
  /** By bucket, of those that do not hold it. */
  private readonly arrivals = new Map<number, Arrival>();
  /** Buckets above the variable's own, each with the one that leads down to it. */
  private readonly above = new Map<number, number>();
  /** By the buckets that they lead between. Shared by all variables. */
  private readonly steps: Map<number, Step>;

  constructor(tree: JunctionTree, variable: number, steps: Map<number, Step>) {
    this.tree = tree;
    this.sizes = tree.component.sizes;
    this.variable = variable;
    this.states = this.sizes[variable]!;
    this.steps = steps;
    let at = tree.bucket[variable]!;
    for (let parent = tree.parent[at]!; parent >= 0; parent = tree.parent[at]!) {
      this.above.set(parent, at);
      at = parent;
    }
  }

  /** @param asked - the variable first */
  joint(asked: Int32Array): Float64Array {
    const others = asked.subarray(1);
    if (others.length === 0) return this.chances;
    const bucket = this.nearestWith(others);
    if (bucket >= 0) return this.read(bucket, others);
    const { scope, table } = this.gathered(others);
    return marginal(table, scope, asked, this.sizes);
  }

  /** The chance of each of its states. */
  private get chances(): Float64Array {
    if (!this.ownChances) {
      const at = this.tree.bucket[this.variable]!;
      this.ownChances = marginal(
        this.tree.beliefs[at]!,
        this.tree.scopes[at]!,
        Int32Array.of(this.variable),
        this.sizes,
      );
    }
    return this.ownChances;
  }

  /** The bucket nearest to the variable that holds all of these; -1 where none does. */
  private nearestWith(others: Int32Array): number {
    const holdsAll = (b: number): boolean => others.every((other) => this.tree.scopes[b]!.includes(other));
    let b = Math.min(...others.map((other) => this.tree.bucket[other]!));
    if (!holdsAll(b)) return -1;
    for (let next = this.towards(b); next >= 0 && holdsAll(next); next = this.towards(b)) b = next;
    return b;
  }

  /** Entries that are passed through for these, but for buckets that were. @param seen - takes the buckets */
  costOf(others: Int32Array, seen: Set<number>): number {
    if (others.length === 0) return 0;
    const { tree } = this;
    const bucket = this.nearestWith(others);
    const starts = bucket >= 0 ? [bucket] : [...others].map((other) => tree.bucket[other]!);
    // Gathered ones carry one another's states along.
    const carried = bucket >= 0 ? 1 : others.reduce((product, other) => product * this.sizes[other]!, 1);
    let cost = 0;
    for (const start of starts) {
      for (let b = start; b >= 0; b = this.towards(b)) {
        if (seen.has(b) && carried === 1) break;
        seen.add(b);
        cost += this.states * carried * tableSize(tree.scopes[b]!, this.sizes);
      }
    }
    return cost;
  }

  /** The next bucket on the way to one that holds the variable; -1 where this one does. */
  private towards(b: number): number {
    if (this.tree.scopes[b]!.includes(this.variable)) return -1;
    return this.above.get(b) ?? this.tree.parent[b]!;
  }

  /** The joint marginal of the variable, then of some that a bucket holds. */
  private read(bucket: number, part: Int32Array): Float64Array {
    const { tree, sizes } = this;
    const scope = tree.scopes[bucket]!;
    const belief = tree.beliefs[bucket]!;
    const arrival = this.arrivalAt(bucket);
    if (!arrival) return marginal(belief, scope, Int32Array.of(this.variable, ...part), sizes);
    const { step, message } = arrival;
    if (!message) return outer(this.chances, marginal(belief, scope, part, sizes));
    const outward = positionsIn(scope, part, sizes);
    const width = tableSize(part, sizes);
    const sums = new Float64Array(this.chances.length * width);
    const { given, inward } = step;
    for (let s = 0; s < this.chances.length; s++) {
      const from = s * step.width;
      const into = s * width;
      for (let at = 0; at < given.length; at++)
        sums[into + outward[at]!]! += given[at]! * message[from + inward[at]!]!;
    }
    return sums;
  }

  /** @returns null where the bucket holds the variable itself */
  private arrivalAt(bucket: number): Arrival | null {
    const way: number[] = [];
    let b = bucket;
    for (let next = this.towards(b); next >= 0 && !this.arrivals.has(b); next = this.towards(b)) {
      way.push(b);
      b = next;
    }
    let arrival = this.arrivals.get(b) ?? null;
    for (const next of way.toReversed()) {
      const step = this.step(next);
      const stopped = arrival !== null && arrival.message === null;
      const message = stopped ? null : this.read(b, step.shared);
      arrival = { step, message: message && this.isFree(message, step.width) ? null : message };
      this.arrivals.set(next, arrival);
      b = next;
    }
    return arrival;
  }

  /** Whether a table over the variable and others says that they have nothing to do with each other. */
  private isFree(message: Float64Array, width: number): boolean {
    const { chances } = this;
    for (let at = 0; at < width; at++) {
      let sum = 0;
      for (let s = 0; s < chances.length; s++) sum += message[s * width + at]!;
      for (let s = 0; s < chances.length; s++) {
        const free = sum * chances[s]!;
        if (Math.abs(message[s * width + at]! - free) > ROUNDING * free) return false;
      }
    }
    return true;
  }

  private step(next: number): Step {
    const { tree, steps, sizes } = this;
    const below = this.above.get(next);
    const key = next * tree.parent.length + (below ?? next);
    const made = steps.get(key);
    if (made) return made;
    const scope = tree.scopes[next]!;
    // The variables that both buckets hold: those below the lower one.
    const shared = tree.separators[below ?? next]!;
    const inward = positionsIn(scope, shared, sizes).slice(0, tableSize(scope, sizes));
    const belief = tree.beliefs[next]!;
    const width = tableSize(shared, sizes);
    const sums = new Float64Array(width);
    for (let at = 0; at < belief.length; at++) sums[inward[at]!]! += belief[at]!;
    const given = belief.map((p, at) => (p === 0 ? 0 : p / sums[inward[at]!]!));
    const step = { shared, width, inward, given };
    steps.set(key, step);
    return step;
  }

  /** A table that holds all of these and the variable: gathered on the way from their buckets to where those meet. */
  private gathered(others: Int32Array): Spoken {
    const { tree } = this;
    const wanted = new Set([this.variable, ...others]);
    const inbox = new Map<number, Spoken[]>([...others].map((variable) => [tree.bucket[variable]!, []]));
    for (;;) {
      const b = Math.min(...inbox.keys());
      const whole = this.whole(b);
      const here = this.joined(whole, inbox.get(b)!);
      inbox.delete(b);
      if (inbox.size === 0 || [...wanted].every((variable) => here.scope.includes(variable))) return here;
      const own = tree.scopes[b]!.at(-1)!;
      const kept = here.scope.filter((variable) => variable !== own || wanted.has(variable));
      const below = Int32Array.from(new Set([...tree.separators[b]!, this.variable]));
      const message = this.conditional(here, kept, below, whole);
      const parent = tree.parent[b]!;
      const messages = inbox.get(parent);
      if (messages) messages.push(message);
      else inbox.set(parent, [message]);
    }
  }

  /** The marginal over all of a bucket's variables and this one. */
  private whole(bucket: number): Spoken {
    const scope = this.tree.scopes[bucket]!;
    const others = scope.filter((variable) => variable !== this.variable);
    return { scope: Int32Array.of(this.variable, ...others), table: this.read(bucket, others) };
  }

  /** A table summed down to some variables, given some of those. @param divisor - holds the given ones */
  private conditional(from: Spoken, kept: Int32Array, given: Int32Array, divisor: Spoken): Spoken {
    const table = marginal(from.table, from.scope, kept, this.sizes);
    const inverse = marginal(divisor.table, divisor.scope, given, this.sizes).map((p) => (p > 0 ? 1 / p : 0));
    multiplyInto(table, kept, given, inverse, this.sizes);
    return { scope: kept, table };
  }

  private joined(own: Spoken, messages: readonly Spoken[]): Spoken {
    if (messages.length === 0) return own;
    const scope = Int32Array.from(new Set([...messages.flatMap((one) => [...one.scope]), ...own.scope]));
    const table = new Float64Array(tableSize(scope, this.sizes)).fill(1);
    for (const one of [own, ...messages]) multiplyInto(table, scope, one.scope, one.table, this.sizes);
    return { scope, table };
  }
}

function outer(a: Float64Array, b: Float64Array): Float64Array {
  const product = new Float64Array(a.length * b.length);
  for (let i = 0, at = 0; i < a.length; i++) for (let j = 0; j < b.length; j++) product[at++] = a[i]! * b[j]!;
  return product;
}
