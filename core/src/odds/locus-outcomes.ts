import {
  canonical,
  genotypeKey,
  viabilityOf,
  type Genotype,
  type WeightedGenotype,
} from '../loci/genotype.ts';
import type { Locus } from '../loci/locus.ts';

/** One thing an egg can be at one locus, with its chance among sons and among daughters. */
export interface LocusOutcome {
  readonly genotype: Genotype;
  /** P(genotype | son) and P(genotype | daughter); each adds up to 1 over the outcomes of a locus. */
  readonly pMale: number;
  readonly pFemale: number;
  /** The chance that such an egg hatches, within 0 to 1. */
  readonly viability: number;
}

/** Allele -> probability. */
type Gamete = readonly (readonly [string, number])[];

/**
 * What a parent passes on to one offspring.
 *
 * Autosomal: each of the two alleles with probability 1/2. Sex-linked: a dam likewise; a sire gives the allele of his X
 * haplotype to a daughter and of his Y haplotype to a son, unless the locus recombined. Source: Mendel 1866; for the sex
 * linkage Mallery & Carrillo 2016; written out in docs/science.md.
 *
 * @example [...gamete(['+', 'pastel'], 'female', 'male', {}).values()] // [["+", 0.5], ["pastel", 0.5]]
 */
export function gamete(
  genotype: Genotype,
  parentSex: 'female' | 'male',
  offspringSex: 'female' | 'male',
  locus: Pick<Locus, 'sexLinked'>,
): Gamete {
  const [x, y] = genotype;
  if (!locus.sexLinked || parentSex === 'female') {
    return [
      [x, 0.5],
      [y, 0.5],
    ];
  }
  const r = locus.sexLinked.recombination;
  const pX = offspringSex === 'female' ? 1 - r : r;
  return [
    [x, pX],
    [y, 1 - pX],
  ];
}

/** The outcomes of one locus for a pair whose genotypes are distributions; a son's phase is merged. */
export function locusOutcomes(
  locus: Locus,
  sire: readonly WeightedGenotype[],
  dam: readonly WeightedGenotype[],
): LocusOutcome[] {
  const byKey = new Map<string, { genotype: Genotype; pMale: number; pFemale: number }>();
  for (const offspringSex of ['male', 'female'] as const) {
    for (const s of sire) {
      for (const d of dam) {
        for (const [fromSire, pSire] of gamete(s.genotype, 'male', offspringSex, locus)) {
          for (const [fromDam, pDam] of gamete(d.genotype, 'female', offspringSex, locus)) {
            const p = s.p * d.p * pSire * pDam;
            if (p <= 0) continue;
            const genotype = canonical(fromSire, fromDam);
            const entry = byKey.get(genotypeKey(genotype)) ?? { genotype, pMale: 0, pFemale: 0 };
            if (offspringSex === 'male') entry.pMale += p;
            else entry.pFemale += p;
            byKey.set(genotypeKey(genotype), entry);
          }
        }
      }
    }
  }
  return [...byKey.values()].map((one) => ({ ...one, viability: viabilityOf(locus, one.genotype) }));
}

/**
 * The chance that an egg of each sex lives, as far as one locus decides it.
 *
 * @example livingShare(locusOutcomes(CATALOGUE.locusById('champagne'), [{ genotype: ['+', 'champagne'], p: 1 }], [{ genotype: ['+', 'champagne'], p: 1 }])) // {"male":0.75,"female":0.75}
 */
export function livingShare(outcomes: readonly LocusOutcome[]): { male: number; female: number } {
  const share = (sex: 'pMale' | 'pFemale'): number =>
    outcomes.reduce((sum, one) => sum + one[sex] * one.viability, 0);
  return { male: share('pMale'), female: share('pFemale') };
}

/**
 * The same outcomes among the young that live: by Bayes' rule, each weighed by its viability. What never hatches is left
 * out. Empty where nothing lives.
 *
 * @example livingOutcomes(locusOutcomes(CATALOGUE.locusById('champagne'), [{ genotype: ['+', 'champagne'], p: 1 }], [{ genotype: ['+', 'champagne'], p: 1 }])).map(({ pMale }) => pMale.toFixed(3)) // ["0.333","0.667"]
 */
export function livingOutcomes(outcomes: readonly LocusOutcome[]): LocusOutcome[] {
  const { male, female } = livingShare(outcomes);
  return outcomes
    .filter(({ viability }) => viability > 0)
    .map((one) => ({
      ...one,
      pMale: male > 0 ? (one.pMale * one.viability) / male : 0,
      pFemale: female > 0 ? (one.pFemale * one.viability) / female : 0,
    }));
}
