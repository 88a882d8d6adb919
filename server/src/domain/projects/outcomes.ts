import type { ClutchOutcome } from '@karyotome/contract';
import {
  chanceOfTarget,
  hatchedScenarios,
  luckOf,
  parseGenes,
  toTarget,
  type Luck,
  type LuckPair,
  type Target,
} from '@karyotome/core';
import { parentsBefore } from '../genetics/identification-check.ts';
import type { Genetics } from '../genetics/genetics.service.ts';
import { parentOf } from '../genetics/inferred-of-animal.ts';
import type { MadeRow } from './projects.queries.ts';

/** An animal is a target, or is not, from this on: what is left are slips that no record settles. */
const SETTLED = 0.999;

export const targetsOf = (genetics: Genetics, texts: readonly string[]): Target[] =>
  texts.map((text) => toTarget(parseGenes(text, genetics.catalogue), genetics.catalogue));

/** For each target, the chance that an animal is it. */
export const chancesOf = (genetics: Genetics, animalId: string, targets: readonly Target[]): number[] => {
  const animal = parentOf(genetics, animalId);
  return targets.map((target) => chanceOfTarget(animal, target));
};

/** What came of a pairing: for each clutch and target, and what it says about luck. */
export interface PairingOutcome {
  readonly ofClutch: ReadonlyMap<string, ClutchOutcome[]>;
  /** For each target, its clutches of which every hatchling is settled; null where there is none. */
  readonly luck: readonly (LuckPair | null)[];
}

/**
 * The young of a pairing against the odds that held before any of them was looked at: what they themselves tell of their
 * parents would make every outcome look likelier than it was. Of several candidate sires each counts with its share.
 */
export async function outcomeOf(
  genetics: Genetics,
  { damId, sires, clutches }: MadeRow,
  targets: readonly Target[],
): Promise<PairingOutcome> {
  const hatched = clutches.filter(({ young }) => young.length > 0);
  if (hatched.length === 0) return { ofClutch: new Map(), luck: targets.map(() => null) };
  const young = hatched.flatMap((clutch) => clutch.young);
  const parents = await parentsBefore(genetics, [damId, ...sires.map(({ id }) => id)], young);
  const weights = sires.reduce((sum, { weight }) => sum + weight, 0);
  const chances = new Map(young.map((id) => [id, chancesOf(genetics, id, targets)]));
  const perTarget = targets.map((target, t) => {
    const scenarios = sires.flatMap(({ id, weight }) =>
      hatchedScenarios(parents.get(id)!, parents.get(damId)!, target, genetics.catalogue).map((one) => ({
        weight: (one.weight * weight) / weights,
        p: one.p,
      })),
    );
    const mean = scenarios.reduce((sum, { weight, p }) => sum + weight * p, 0);
    const outcomes = hatched.map((clutch): ClutchOutcome => {
      const own = clutch.young.map((id) => chances.get(id)![t]!);
      return {
        young: own.length,
        hits: own.filter((p) => p >= SETTLED).length,
        open: own.filter((p) => p < SETTLED && p > 1 - SETTLED).length,
        expected: own.length * mean,
      };
    });
    const settled = outcomes.filter(({ open }) => open === 0);
    const sum = (of: 'young' | 'hits'): number => settled.reduce((total, one) => total + one[of], 0);
    const pair = settled.length > 0 ? { scenarios, young: sum('young'), hits: sum('hits') } : null;
    return { outcomes, pair };
  });
  return {
    ofClutch: new Map(hatched.map(({ id }, c) => [id, perTarget.map(({ outcomes }) => outcomes[c]!)])),
    luck: perTarget.map(({ pair }) => pair),
  };
}

/** Over all pairings, for each target; null where no clutch is settled. */
export function luckOverAll(
  outcomes: readonly PairingOutcome[],
  targets: readonly Target[],
): (Luck | null)[] {
  return targets.map((_, t) => {
    const pairs = outcomes.flatMap(({ luck }) => luck[t] ?? []);
    return pairs.length > 0 ? luckOf(pairs) : null;
  });
}
