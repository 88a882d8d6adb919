import type { Catalogue } from '../../catalogue/catalogue.ts';
import {
  appearance,
  canonical,
  viabilityOf,
  type Genotype,
  type WeightedGenotype,
} from '../../loci/genotype.ts';
import { canonicalLabel } from '../../notation/label.ts';
import { gamete, locusOutcomes } from '../../odds/locus-outcomes.ts';
import { distributionAt, type Parent } from '../../odds/parent.ts';
import { meetsTarget, type Target } from '../../odds/target.ts';

/** One kind of hatchling that could be held back: a sex, a look, and what it then may be. */
export interface Kind {
  readonly sex: 'female' | 'male';
  readonly phenotype: Readonly<Record<string, string>>;
  readonly parent: Parent;
  /** Per egg, the sex included. */
  readonly perEgg: number;
  /** How far it is on the way to the target: expected useful copies at the target's loci. */
  readonly progress: number;
}

/** Rarer kinds are not planned for. */
const RAREST = 1 / 400;

/** The kinds a pair can give, told apart by what shows at the target's loci. */
export function kindsOf(sire: Parent, dam: Parent, target: Target): Kind[] {
  return (['female', 'male'] as const).flatMap((sex) => {
    let kinds: Kind[] = [{ sex, phenotype: {}, parent: { loci: new Map() }, perEgg: 0.5, progress: 0 }];
    for (const wanted of target) {
      const { locus } = wanted;
      const groups = new Map<string, WeightedGenotype[]>();
      const s = distributionAt(sire, locus.id);
      const d = distributionAt(dam, locus.id);
      // A son's pair keeps its phase: [from dam, from sire].
      for (const { genotype, p } of locus.sexLinked && sex === 'male'
        ? phased(s, d, locus)
        : merged(s, d, locus, sex)) {
        const phenotype = appearance(locus, genotype);
        groups.set(phenotype, [...(groups.get(phenotype) ?? []), { genotype, p }]);
      }
      kinds = kinds.flatMap((kind) =>
        [...groups].flatMap(([phenotype, members]) => {
          const share = members.reduce((sum, { p }) => sum + p, 0);
          const perEgg = kind.perEgg * share;
          if (perEgg < RAREST) return [];
          const here = members.map(({ genotype, p }) => ({ genotype, p: p / share }));
          return [
            {
              sex,
              phenotype: { ...kind.phenotype, [locus.id]: phenotype },
              parent: { loci: new Map([...kind.parent.loci, [locus.id, here]]) },
              perEgg,
              progress: kind.progress + usefulCopies(wanted, here),
            },
          ];
        }),
      );
    }
    return kinds;
  });
}

function merged(
  s: readonly WeightedGenotype[],
  d: readonly WeightedGenotype[],
  locus: Target[number]['locus'],
  sex: 'female' | 'male',
): WeightedGenotype[] {
  return locusOutcomes(locus, s, d).flatMap(({ genotype, pMale, pFemale, viability }) => {
    const p = (sex === 'male' ? pMale : pFemale) * viability;
    return p > 0 ? [{ genotype, p }] : [];
  });
}

function phased(
  s: readonly WeightedGenotype[],
  d: readonly WeightedGenotype[],
  locus: Target[number]['locus'],
): WeightedGenotype[] {
  const byKey = new Map<string, WeightedGenotype>();
  for (const one of s) {
    for (const other of d) {
      for (const [fromSire, pSire] of gamete(one.genotype, 'male', 'male', locus)) {
        for (const [fromDam, pDam] of gamete(other.genotype, 'female', 'male', locus)) {
          const genotype: Genotype = [fromDam, fromSire];
          const key = genotype.join('/');
          const living = pSire * pDam * viabilityOf(locus, genotype);
          const p = (byKey.get(key)?.p ?? 0) + one.p * other.p * living;
          if (p > 0) byKey.set(key, { genotype, p });
        }
      }
    }
  }
  return [...byKey.values()];
}

/** Copies of wanted alleles that a genotype has, counted up to what is wanted; the mean over a distribution. */
export function usefulCopies(wanted: Target[number], distribution: readonly WeightedGenotype[]): number {
  return distribution.reduce((sum, { genotype, p }) => {
    const best = Math.max(
      ...wanted.wanted.map((one) => {
        const rest = [...genotype];
        return one.filter((allele) => {
          if (allele === '+') return false;
          const at = rest.indexOf(allele);
          if (at >= 0) rest.splice(at, 1);
          return at >= 0;
        }).length;
      }),
      0,
    );
    // A genotype that is all that is wanted counts in full, whatever else it holds.
    return sum + p * (meetsTarget(wanted, genotype) ? Math.max(best, 1) : best);
  }, 0);
}

/** What is less likely than this is not part of a kind's name. */
const WORTH_NAMING = 0.03;

/** How a kind would be called, from what is known of it at the target's loci. */
export function kindLabel({ parent }: Pick<Kind, 'parent'>, catalogue: Catalogue): string {
  const loci = new Map(
    [...parent.loci].map(([id, distribution]) => [
      id,
      mergePhases(distribution)
        .filter(({ p }) => p >= WORTH_NAMING)
        .toSorted((a, b) => b.p - a.p),
    ]),
  );
  return canonicalLabel({ loci, phases: new Map(), possible: [] }, catalogue);
}

function mergePhases(distribution: readonly WeightedGenotype[]): WeightedGenotype[] {
  const byKey = new Map<string, WeightedGenotype>();
  for (const { genotype, p } of distribution) {
    const pair = canonical(...genotype);
    byKey.set(pair.join('/'), { genotype: pair, p: p + (byKey.get(pair.join('/'))?.p ?? 0) });
  }
  return [...byKey.values()];
}
