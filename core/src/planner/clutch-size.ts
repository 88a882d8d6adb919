import { bellOdds, learn, type Learned } from '../numeric/whole-odds.ts';

/** Eggs that are no slugs, of one clutch: usually 4 to 9 eggs. Common practice, no source. */
const GOOD_EGGS = bellOdds(6, 1.9, 1, 14);
/** The default counts as much as so many clutches of the female's own. */
const DEFAULT_COUNTS_AS = 3;

/**
 * The good eggs that a female's next clutch will have, from her own history as it grows.
 *
 * @example clutchSize([6, 7]).observations // 2
 */
export function clutchSize(ownClutches: readonly number[]): Learned {
  return learn(GOOD_EGGS, ownClutches, DEFAULT_COUNTS_AS, 0.8);
}

/** Of the default, so many good eggs count, of which so many hatch. Common practice, no source. */
const DEFAULT_EGGS = 40;
const DEFAULT_HATCHED = 36;

/**
 * The share of good eggs that hatch: the mean of a beta distribution (Bayes' rule; the default counts as 40 eggs).
 *
 * @example hatchShare(0, 0) // 0.9
 */
export function hatchShare(hatched: number, goodEggs: number): number {
  return (DEFAULT_HATCHED + hatched) / (DEFAULT_EGGS + goodEggs);
}
