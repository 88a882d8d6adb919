import type { GrowthLine } from '@karyotome/contract';
import { daysBetween } from '@karyotome/core';

/** Ages, in days, at which animals are set beside one another. */
export const AGES = [0, 30, 60, 90, 180, 365, 730] as const;
/** A weighing stands for an age this near to it, as a share of the age, and never further than so many days. */
const NEAR_SHARE = 0.15;
const NEAR_DAYS = 10;

export interface AgedWeight {
  readonly age: number;
  readonly massG: number;
}

/** An animal's weights by its age in days. Weighings before it hatched are slips, and left out. */
export const byAge = ({ hatchedOn, weights }: GrowthLine): AgedWeight[] =>
  weights.map(({ on, massG }) => ({ age: daysBetween(hatchedOn, on), massG })).filter(({ age }) => age >= 0);

/** The weight at about an age; null where none was taken near it. */
export function weightAt(weights: readonly AgedWeight[], age: number): number | null {
  const near = Math.max(NEAR_DAYS, age * NEAR_SHARE);
  const [best] = weights
    .filter((one) => Math.abs(one.age - age) <= near)
    .toSorted((a, b) => Math.abs(a.age - age) - Math.abs(b.age - age));
  return best?.massG ?? null;
}

/** Names at the ends of lines need so many pixels each. */
const NAME_PX = 14;

/**
 * How far the names at the ends of lines are moved down, in pixels, so that none lies over another: from the highest on, each
 * keeps its distance from the one above it.
 *
 * @param ends - the values at which the lines end
 */
export function labelShifts(ends: readonly number[], pixelsPerUnit: number): number[] {
  const shifts = ends.map(() => 0);
  let free = -Infinity;
  const downwards = ends.map((_, i) => i).toSorted((a, b) => ends[b]! - ends[a]!);
  for (const i of downwards) {
    const at = -ends[i]! * pixelsPerUnit;
    shifts[i] = Math.max(0, free - at);
    free = at + shifts[i] + NAME_PX;
  }
  return shifts;
}

/** A round number above a value, at which an axis ends: 1, 2 or 5 times a power of ten, in fifths. */
export function topOf(value: number): number {
  if (value <= 0) return 1;
  const power = 10 ** Math.floor(Math.log10(value));
  const step = [0.1, 0.2, 0.5, 1].map((one) => one * power).find((one) => value / one <= 8) ?? 2 * power;
  return Math.ceil((value * 1.02) / step) * step;
}
