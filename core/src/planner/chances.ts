import type { WholeOdds } from '../numeric/whole-odds.ts';
import type { Scenario } from '../odds/target.ts';

/** How many young of a clutch are to be expected. */
export interface Fertility {
  /** Good eggs in a clutch. */
  readonly size: WholeOdds;
  /** The chance that a good egg hatches. */
  readonly hatch: number;
}

/** No more clutches than this are thought of. */
export const MOST_CLUTCHES = 60;

/** The chance that a whole clutch has none, for one scenario: over the sizes, (1 - p)^n, each egg also having to hatch. */
function noneInClutch({ pMale, pFemale }: Scenario, { size, hatch }: Fertility): number {
  const miss = 1 - Math.min(1, pMale + pFemale) * hatch;
  return size.odds.reduce((sum, share, i) => sum + share * miss ** (size.first + i), 0);
}

/**
 * The chance of at least one hatchling of the target within so many clutches of the pair.
 *
 * @example chanceWithin([{ weight: 1, pMale: 0.25, pFemale: 0.25 }], { size: { first: 1, odds: [1] }, hatch: 1 }, 2) // 0.75
 */
export function chanceWithin(scenarios: readonly Scenario[], fertility: Fertility, clutches: number): number {
  return scenarios.reduce((sum, s) => sum + s.weight * (1 - noneInClutch(s, fertility) ** clutches), 0);
}

/**
 * The fewest clutches with at least this chance of the target; null where that is not reached.
 *
 * @example clutchesForChance([{ weight: 1, pMale: 0.25, pFemale: 0.25 }], { size: { first: 1, odds: [1] }, hatch: 1 }, 0.9) // 4
 */
export function clutchesForChance(
  scenarios: readonly Scenario[],
  fertility: Fertility,
  chance: number,
): number | null {
  for (let clutches = 1; clutches <= MOST_CLUTCHES; clutches++)
    if (chanceWithin(scenarios, fertility, clutches) >= chance) return clutches;
  return null;
}

/**
 * The expected number of clutches until the first of the target: the mean of a geometric waiting time, over what the parents
 * may be; null where they may be unable to give it at all, and the mean is without bound.
 *
 * @example expectedClutches([{ weight: 1, pMale: 0.25, pFemale: 0.25 }], { size: { first: 1, odds: [1] }, hatch: 1 }) // 2
 */
export function expectedClutches(scenarios: readonly Scenario[], fertility: Fertility): number | null {
  let mean = 0;
  for (const scenario of scenarios) {
    const hit = 1 - noneInClutch(scenario, fertility);
    if (hit < 1e-12) return null;
    mean += scenario.weight / hit;
  }
  return mean;
}
