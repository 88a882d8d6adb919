import { GRAMS_PER_UNIT } from './mass-units.ts';
import type { FactOf } from '../facts.ts';

/** One line of a scale that talks: a mass, and whether the scale itself calls it steady. */
export interface ScaleReading {
  readonly massG: number;
  readonly saysStable: boolean | null;
}

const GRAMS: Readonly<Record<string, number>> = GRAMS_PER_UNIT;
const LINE = /([+-]?\s*\d+(?:[.,]\d+)?)\s*(kg|g|oz|lb)\b/i;

/**
 * Reads a line as scales send them: a number with its unit, with or without a mark for steady (`ST`, `S`) or not (`US`,
 * `SD`) before it. Units: g, kg, oz, lb (exact by definition of the avoirdupois pound, 453.59237 g).
 *
 * @returns null for a line that holds no mass
 * @example parseScaleLine('ST,GS,+  342.5 g') // {"massG":342.5,"saysStable":true}
 */
export function parseScaleLine(line: string): ScaleReading | null {
  const found = LINE.exec(line);
  if (!found) return null;
  const number = Number(found[1]!.replace(/\s/g, '').replace(',', '.'));
  const mark = /^\s*(ST|S|US|SD|U)\b/i.exec(line)?.[1]?.toUpperCase();
  return {
    massG: number * GRAMS[found[2]!.toLowerCase()]!,
    saysStable: mark === undefined ? null : mark === 'ST' || mark === 'S',
  };
}

/** A snake moves: readings of this long must lie together. */
const STEADY_MS = 1200;
const LEAST_READINGS = 4;
/** Together: within this many grams, or this share, whichever is more. */
const LEEWAY_G = 0.6;
const LEEWAY_SHARE = 0.006;
/** Less is an empty pan. */
const EMPTY_G = 3;

/** Finds the steady mass in a stream of readings; after one was found, the pan must be emptied before the next. */
export class SteadyMass {
  #recent: { readonly at: number; readonly massG: number }[] = [];
  #armed = true;

  /**
   * @param at - milliseconds, rising
   * @returns the steady mass in grams, once; otherwise null
   */
  push(at: number, massG: number): number | null {
    if (massG < EMPTY_G) {
      this.#armed = true;
      this.#recent = [];
      return null;
    }
    this.#recent.push({ at, massG });
    // The youngest reading that is old enough stays: the span must be covered, not only touched.
    while (this.#recent.length > 1 && at - this.#recent[1]!.at >= STEADY_MS) this.#recent.shift();
    if (!this.#armed || this.#recent.length < LEAST_READINGS) return null;
    if (at - this.#recent[0]!.at < STEADY_MS) return null;
    const sorted = this.#recent.map((reading) => reading.massG).toSorted((a, b) => a - b);
    const middle = sorted[Math.floor(sorted.length / 2)]!;
    if (sorted.at(-1)! - sorted[0]! > Math.max(LEEWAY_G, middle * LEEWAY_SHARE)) return null;
    this.#armed = false;
    return Math.round(middle * 10) / 10;
  }
}

/** A mass that is not what was expected of it: grams, and how many times the middle of the expected span. */
export interface WeightDoubts {
  readonly 'lighter-than-expected': WeightDoubtFacts;
  readonly 'heavier-than-expected': WeightDoubtFacts;
  /** So far off that it may be another animal. */
  readonly 'far-from-expected': WeightDoubtFacts;
}
interface WeightDoubtFacts {
  readonly massG: number;
  readonly ratio: number;
  readonly lowG: number;
  readonly highG: number;
}
export type WeightDoubt = FactOf<WeightDoubts>;

/** Beyond these multiples of what was expected it may be another animal. Assumption. */
const FAR_RATIO = { low: 0.65, high: 1.6 } as const;

/**
 * @returns what is doubtful about a mass before it is recorded; null where it is as expected, or nothing is
 *
 * @example weightDoubt(3420, { lowG: 320, midG: 340, highG: 365 }).code // "far-from-expected"
 */
export function weightDoubt(
  massG: number,
  expected: { readonly lowG: number; readonly midG: number; readonly highG: number } | null,
): WeightDoubt | null {
  if (!expected || (massG >= expected.lowG && massG <= expected.highG)) return null;
  const ratio = massG / expected.midG;
  const facts = { massG, ratio, lowG: expected.lowG, highG: expected.highG };
  if (ratio < FAR_RATIO.low || ratio > FAR_RATIO.high) return { code: 'far-from-expected', facts };
  return { code: ratio < 1 ? 'lighter-than-expected' : 'heavier-than-expected', facts };
}
