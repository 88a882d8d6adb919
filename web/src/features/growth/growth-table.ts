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
