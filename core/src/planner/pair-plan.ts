import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { pairingCautions, visibleOutcomes, type VisibleOutcome } from '../odds/pairing-odds.ts';
import type { Parent } from '../odds/parent.ts';
import { targetScenarios, type Target } from '../odds/target.ts';
import { chanceWithin, clutchesForChance, expectedClutches, type Fertility } from './chances.ts';

/** What a pair can give, before it is put together. */
export interface PairPlan {
  /** The likeliest kinds, by what shows. */
  readonly outcomes: readonly VisibleOutcome[];
  readonly target: TargetChances | null;
  /** Welfare: what could come of the pair that nobody should make, or that needs care. */
  readonly cautions: readonly string[];
}

export interface TargetChances {
  readonly perEgg: number;
  readonly inClutch: number;
  /** The mean; null where the parents may be unable to give it. */
  readonly expectedClutches: number | null;
  readonly clutchesForHalf: number | null;
  readonly clutchesForNineInTen: number | null;
}

/**
 * Everything about one pair: what shows, the target's chances, and the cautions.
 *
 * @example planPair(toParent(parseGenes('clown'), 'male'), toParent(parseGenes('normal'), 'female'), null, { size: { first: 6, odds: [1] }, hatch: 1 }).outcomes.map(({ label }) => label) // ["Normal"]
 */
export function planPair(
  sire: Parent,
  dam: Parent,
  target: Target | null,
  fertility: Fertility,
  top = 60,
  catalogue: Catalogue = CATALOGUE,
): PairPlan {
  return {
    outcomes: visibleOutcomes(sire, dam, top, catalogue),
    target: target && target.length > 0 ? targetChances(sire, dam, target, fertility, catalogue) : null,
    cautions: pairingCautions(sire, dam, catalogue),
  };
}

/** @example targetChances(toParent(parseGenes('clown'), 'male'), toParent(parseGenes('het clown'), 'female'), toTarget(parseGenes('clown')), { size: { first: 1, odds: [1] }, hatch: 1 }).perEgg // 0.5 */
export function targetChances(
  sire: Parent,
  dam: Parent,
  target: Target,
  fertility: Fertility,
  catalogue: Catalogue = CATALOGUE,
): TargetChances {
  const scenarios = targetScenarios(sire, dam, target, catalogue);
  return {
    perEgg: scenarios.reduce((sum, s) => sum + s.weight * (s.pMale + s.pFemale), 0),
    inClutch: chanceWithin(scenarios, fertility, 1),
    expectedClutches: expectedClutches(scenarios, fertility),
    clutchesForHalf: clutchesForChance(scenarios, fertility, 0.5),
    clutchesForNineInTen: clutchesForChance(scenarios, fertility, 0.9),
  };
}
