import type { ReadinessReason } from '../breeding/readiness.ts';
import type { FactOf } from '../facts.ts';
import type { WeightedGenotype } from '../loci/genotype.ts';
import { distributionAt, type Parent } from '../odds/parent.ts';
import { locusScenarios, type Target } from '../odds/target.ts';

/**
 * Why an animal cannot be paired now: the reasons against it, or that it is years from its first clutch, is about to lay, or
 * has laid this season.
 */
export type NotReady =
  ReadinessReason | FactOf<{ 'not-grown': object; 'near-laying': object; 'laid-this-season': object }>;

/** Reasons against a pair now. */
export type AgainstPair =
  | { readonly code: 'dam-not-ready' | 'sire-not-ready'; readonly facts: { readonly reason: NotReady } }
  | FactOf<{ 'sire-load-used-up': object; 'too-closely-related': { readonly inbreeding: number } }>;

/** An animal as the planner sees it. */
export interface PlannerAnimal {
  readonly id: string;
  readonly sex: 'female' | 'male';
  readonly parent: Parent;
  /** Why it cannot be paired now; empty where it can. */
  readonly notReady: readonly NotReady[];
  /** For a male: females he may still serve this season. */
  readonly freeLoad: number;
}

export interface RankedPair {
  readonly dam: string;
  readonly sire: string;
  readonly perEgg: number;
  /** The expected inbreeding of the young: the kinship of the two. */
  readonly inbreeding: number;
  /** Reasons against pairing them now; empty where nothing does. */
  readonly against: readonly AgainstPair[];
}

/**
 * The mean chance of a target per egg, for many pairs. Animals that are alike at a locus share its arithmetic, so that a pair
 * costs a few multiplications. The loci of a parent are independent, so the means multiply within each sex.
 *
 * @example pairOdds(toTarget(parseGenes('clown')))(toParent(parseGenes('clown'), 'male'), toParent(parseGenes('het clown'), 'female')) // 0.5
 */
export function pairOdds(target: Target): (sire: Parent, dam: Parent) => number {
  const loci = target.map((wanted) => {
    const keys = new WeakMap<Parent, string>();
    const known = new Map<string, { pMale: number; pFemale: number }>();
    const keyOf = (parent: Parent): string => {
      const old = keys.get(parent);
      if (old !== undefined) return old;
      const key = distributionKey(distributionAt(parent, wanted.locus.id));
      keys.set(parent, key);
      return key;
    };
    return (sire: Parent, dam: Parent): { pMale: number; pFemale: number } => {
      const key = `${keyOf(sire)}*${keyOf(dam)}`;
      const old = known.get(key);
      if (old) return old;
      const fresh = { pMale: 0, pFemale: 0 };
      const { id } = wanted.locus;
      for (const s of locusScenarios(wanted, distributionAt(sire, id), distributionAt(dam, id))) {
        fresh.pMale += s.weight * s.pMale;
        fresh.pFemale += s.weight * s.pFemale;
      }
      known.set(key, fresh);
      return fresh;
    };
  });
  return (sire, dam) => {
    let pMale = 0.5;
    let pFemale = 0.5;
    for (const locus of loci) {
      const here = locus(sire, dam);
      pMale *= here.pMale;
      pFemale *= here.pFemale;
    }
    return pMale + pFemale;
  };
}

export function distributionKey(distribution: readonly WeightedGenotype[]): string {
  return distribution
    .map(({ genotype: [a, b], p }) => `${a}/${b}:${p.toFixed(9)}`)
    .toSorted()
    .join(';');
}

const isGrown = ({ notReady }: PlannerAnimal): boolean => !notReady.some(({ code }) => code === 'not-grown');

/**
 * The pairs that can give a target, best first: those with nothing against them, then the others, those with one that is not
 * grown last of all; each by the odds per egg, then by how little related they are.
 *
 * @param top - how many to return at most
 * @example bestMates([], toTarget(parseGenes('clown')), () => 0, 0.1) // []
 */
export function bestMates(
  animals: readonly PlannerAnimal[],
  target: Target,
  kinship: (dam: string, sire: string) => number,
  inbreedingBound: number,
  top = 100,
): RankedPair[] {
  const oddsOf = pairOdds(target);
  const females = animals.filter(({ sex }) => sex === 'female');
  const males = animals.filter(({ sex }) => sex === 'male');
  const pairs: (RankedPair & { rank: number })[] = [];
  for (const dam of females) {
    for (const sire of males) {
      const perEgg = oddsOf(sire.parent, dam.parent);
      if (perEgg < 1e-12) continue;
      const inbreeding = kinship(dam.id, sire.id);
      const against: AgainstPair[] = [
        ...dam.notReady.map((reason) => ({ code: 'dam-not-ready', facts: { reason } }) as const),
        ...sire.notReady.map((reason) => ({ code: 'sire-not-ready', facts: { reason } }) as const),
        ...(sire.freeLoad <= 0 ? [{ code: 'sire-load-used-up', facts: {} } as const] : []),
        ...(inbreeding > inbreedingBound + 1e-9
          ? [{ code: 'too-closely-related', facts: { inbreeding } } as const]
          : []),
      ];
      pairs.push({
        dam: dam.id,
        sire: sire.id,
        perEgg,
        inbreeding,
        against,
        rank: against.length === 0 ? 0 : isGrown(dam) && isGrown(sire) ? 1 : 2,
      });
    }
  }
  return pairs
    .sort((a, b) => a.rank - b.rank || b.perEgg - a.perEgg || a.inbreeding - b.inbreeding)
    .slice(0, top)
    .map(({ rank: _, ...pair }) => pair);
}
