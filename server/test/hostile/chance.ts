/** Numbers that look like chance and are the same for the same seed (mulberry32, public domain). */
export class Chance {
  #state: number;

  constructor(seed: number) {
    this.#state = seed >>> 0;
  }

  /** Within 0 and 1, 1 left out. */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.#state ^ (this.#state >>> 15), 1 | this.#state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  }

  is(p: number): boolean {
    return this.next() < p;
  }

  /** A whole number from `low` to `high`, both included. */
  whole(low: number, high: number): number {
    return low + Math.floor(this.next() * (high - low + 1));
  }

  one<T>(list: readonly T[]): T {
    return list[this.whole(0, list.length - 1)]!;
  }
}
