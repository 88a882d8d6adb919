/** In which order the variables go, and what each is tied to when it does. */
export interface EliminationOrder {
  readonly order: Int32Array;
  /** Of the n-th variable to go: its neighbours at that time. */
  readonly separators: readonly Int32Array[];
  /** Entries of the largest table, and of all tables together. */
  readonly largest: number;
  readonly total: number;
}

/** How the next variable is chosen: by the table it makes, or by the ties it adds (then by the table). */
export type Greed = 'smallest-table' | 'fewest-ties';

export interface OrderOptions {
  readonly greed: Greed;
  /** Gives up once all tables together would have more entries than this. */
  readonly stopAt?: number;
  /** Blurs the scores a little, so that near ties fall otherwise than before. */
  readonly random?: () => number;
  /** Gives up once it has looked at so many ties; what is looked at is taken off. */
  readonly budget?: SearchBudget;
}

/** How many ties a search for an order may still look at. */
export interface SearchBudget {
  left: number;
}

/**
 * A greedy elimination order (min-weight and min-fill: Kjærulff 1990, Technical report R90-09, Aalborg).
 *
 * @param sizes - number of states of each variable
 * @param scopes - the variables of each factor
 * @returns null where it gave up. Without `random`, ties go to the variable that comes first: always the same order
 */
export function eliminationOrder(
  sizes: Int32Array,
  scopes: readonly Int32Array[],
  { greed, stopAt = Number.POSITIVE_INFINITY, random, budget = { left: Infinity } }: OrderOptions,
): EliminationOrder | null {
  const graph = new Graph(sizes, scopes, { greed, random, budget });
  const order = new Int32Array(sizes.length);
  const separators: Int32Array[] = [];
  let largest = 1;
  let total = 0;
  for (let at = 0; at < sizes.length; at++) {
    const variable = graph.next();
    const weight = graph.tableSize(variable);
    graph.beGreedy(weight);
    largest = Math.max(largest, weight);
    total += weight;
    order[at] = variable;
    separators.push(graph.eliminate(variable));
    if (total > stopAt || budget.left < 0) return null;
  }
  return { order, separators, largest, total };
}

/** Variables that make no larger tables than this go first, whatever the greed: that leaves the part that is hard. */
const SMALL = 8;

/** A blurred score is up to this much larger. */
const BLUR = 0.9;

/** The moral graph while variables leave it. Neighbourhoods are small, so they are plain arrays. */
class Graph {
  private readonly sizes: Int32Array;
  private readonly greed: Greed;
  private readonly neighbours: number[][];
  private readonly score: Float64Array;
  private heap: Heap;
  private isGreedy = false;
  private readonly blur: Float64Array | null;
  private readonly budget: SearchBudget;

  constructor(
    sizes: Int32Array,
    scopes: readonly Int32Array[],
    { greed, random, budget }: { greed: Greed; random: (() => number) | undefined; budget: SearchBudget },
  ) {
    this.sizes = sizes;
    this.greed = greed;
    this.budget = budget;
    this.blur = random ? Float64Array.from(sizes, () => 1 + random() * BLUR) : null;
    this.neighbours = Array.from(sizes, () => []);
    for (const scope of scopes) {
      for (let i = 0; i < scope.length; i++)
        for (let j = i + 1; j < scope.length; j++) this.tie(scope[i]!, scope[j]!);
    }
    this.score = Float64Array.from(sizes, (_, variable) => this.scoreOf(variable));
    this.heap = new Heap(this.score, [...sizes.keys()]);
  }

  /** Goes over to the wanted greed once the next table is no longer small. @param next - the size of that table */
  beGreedy(next: number): void {
    if (this.isGreedy || next <= SMALL) return;
    this.isGreedy = true;
    const left = this.heap.left();
    for (const variable of left) this.score[variable] = this.scoreOf(variable);
    this.heap = new Heap(this.score, left);
  }

  private tie(a: number, b: number): void {
    if (this.neighbours[a]!.includes(b)) return;
    this.neighbours[a]!.push(b);
    this.neighbours[b]!.push(a);
  }

  tableSize(variable: number): number {
    let size = this.sizes[variable]!;
    for (const other of this.neighbours[variable]!) size *= this.sizes[other]!;
    return size;
  }

  private scoreOf(variable: number): number {
    return this.plainScore(variable) * ((this.isGreedy && this.blur?.[variable]) || 1);
  }

  private plainScore(variable: number): number {
    const size = this.tableSize(variable);
    this.budget.left -= this.neighbours[variable]!.length;
    if (!this.isGreedy || this.greed === 'smallest-table' || this.budget.left < 0) return size;
    const near = this.neighbours[variable]!;
    let missing = 0;
    for (let i = 0; i < near.length; i++) {
      const theirs = this.neighbours[near[i]!]!;
      this.budget.left -= (near.length - i) * theirs.length;
      for (let j = i + 1; j < near.length; j++) if (!theirs.includes(near[j]!)) missing++;
    }
    return missing + 1 - 1 / (1 + size);
  }

  next(): number {
    return this.heap.pop();
  }

  eliminate(variable: number): Int32Array {
    const near = this.neighbours[variable]!;
    for (const a of near) {
      const theirs = this.neighbours[a]!;
      theirs[theirs.indexOf(variable)] = theirs.at(-1)!;
      theirs.pop();
    }
    for (let i = 0; i < near.length; i++)
      for (let j = i + 1; j < near.length; j++) this.tie(near[i]!, near[j]!);
    const isNear = !this.isGreedy || this.greed === 'smallest-table';
    const touched = isNear ? near : this.withSecondRing(near);
    for (const other of touched) {
      const score = this.scoreOf(other);
      if (score !== this.score[other]) this.heap.update(other, score);
    }
    this.neighbours[variable] = [];
    return new Int32Array(near);
  }

  private withSecondRing(near: readonly number[]): Iterable<number> {
    const ring = new Set(near);
    for (const a of near) for (const b of this.neighbours[a]!) ring.add(b);
    return ring;
  }
}

/** A binary heap of all variables by score, ties by number, whose scores can change. */
class Heap {
  private readonly score: Float64Array;
  private readonly heap: number[];
  private readonly at: Int32Array;

  constructor(score: Float64Array, variables: readonly number[]) {
    this.score = score;
    this.heap = [...variables];
    this.at = new Int32Array(score.length).fill(-1);
    variables.forEach((variable, place) => (this.at[variable] = place));
    for (let i = (this.heap.length >> 1) - 1; i >= 0; i--) this.down(i);
  }

  /** The variables that have not gone. */
  left(): number[] {
    return [...this.heap];
  }

  private before(a: number, b: number): boolean {
    const difference = this.score[a]! - this.score[b]!;
    return difference < 0 || (difference === 0 && a < b);
  }

  private put(place: number, variable: number): void {
    this.heap[place] = variable;
    this.at[variable] = place;
  }

  private up(place: number): void {
    const variable = this.heap[place]!;
    while (place > 0) {
      const above = (place - 1) >> 1;
      if (!this.before(variable, this.heap[above]!)) break;
      this.put(place, this.heap[above]!);
      place = above;
    }
    this.put(place, variable);
  }

  private down(place: number): void {
    const variable = this.heap[place]!;
    for (;;) {
      let child = 2 * place + 1;
      if (child >= this.heap.length) break;
      if (child + 1 < this.heap.length && this.before(this.heap[child + 1]!, this.heap[child]!)) child++;
      if (!this.before(this.heap[child]!, variable)) break;
      this.put(place, this.heap[child]!);
      place = child;
    }
    this.put(place, variable);
  }

  update(variable: number, score: number): void {
    const lower = score < this.score[variable]!;
    this.score[variable] = score;
    if (lower) this.up(this.at[variable]!);
    else this.down(this.at[variable]!);
  }

  pop(): number {
    const top = this.heap[0]!;
    const last = this.heap.pop()!;
    if (this.heap.length > 0) {
      this.put(0, last);
      this.down(0);
    }
    return top;
  }
}
