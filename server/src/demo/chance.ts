import { seededRandom } from '@karyotome/core';

/** Seeded dice: the demo is the same on every machine. */
export class Chance {
  /** Uniform in [0, 1). */
  readonly next: () => number;

  constructor(seed: number) {
    this.next = seededRandom(seed);
  }

  between(low: number, high: number): number {
    return low + (high - low) * this.next();
  }

  whole(low: number, high: number): number {
    return Math.floor(this.between(low, high + 1));
  }

  isTrue(p: number): boolean {
    return this.next() < p;
  }
}
