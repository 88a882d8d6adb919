import { canonical, genotypeKey, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import type { Locus } from '../loci/locus.ts';

/** One thing an egg can be at one locus, with its chance among sons and among daughters. */
export interface LocusOutcome {
  readonly genotype: Genotype;
  /** P(genotype | son) and P(genotype | daughter); each adds up to 1 over the outcomes of a locus. */
  readonly pMale: number;
  readonly pFemale: number;
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
  return [...byKey.values()];
}
