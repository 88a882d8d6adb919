import type { Catalogue } from '../catalogue/catalogue.ts';
import type { WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive, WILD } from '../loci/locus.ts';
import { WILD_FOR_CERTAIN } from '../notation/parse.ts';
import type { ParsedGenes } from '../notation/reading.ts';
import { toParent } from '../odds/parent.ts';
import { UNRECORDED_FREQUENCY, type PedigreeLocus } from './document.ts';
import { CALL_ERROR, type Completeness, type RecordedAnimal } from './recorded-animal.ts';
import { founderAt } from './stated-evidence.ts';

/** A founder of which nothing is known: alleles drawn independently at the unrecorded frequency. */
export function unrecordedFounder(locus: PedigreeLocus): WeightedGenotype[] {
  const frequency = (allele: string): number =>
    allele === WILD ? 1 - locus.alleles.length * UNRECORDED_FREQUENCY : UNRECORDED_FREQUENCY;
  const alleles = [WILD, ...locus.alleles];
  // Ordered pairs: right for a male's sex-linked pair, and the same distribution where order does not matter.
  return alleles.flatMap((x) =>
    alleles.map((y): WeightedGenotype => ({ genotype: [x, y], p: frequency(x) * frequency(y) })),
  );
}

/**
 * What is said of a founder at a locus, with what the statement leaves open.
 *
 * @param isUnsaid - young say that recessive genes are there that the statement may have left out
 */
export function founderDistribution(
  { sex, identification, stated }: RecordedAnimal,
  reading: ParsedGenes | undefined,
  locus: PedigreeLocus,
  isUnsaid: boolean,
  catalogue: Catalogue,
): readonly WeightedGenotype[] {
  if (reading && identification) {
    const { sure, completeness = 'all-known' } = identification;
    const silent = whereSilent(locus, completeness, isUnsaid, catalogue);
    return statedDistribution(locus, sex, reading, CALL_ERROR[sure], silent, catalogue);
  }
  const unknown = unrecordedFounder(locus);
  return stated ? founderAt(stated, locus.id, unknown) : unknown;
}

function statedDistribution(
  locus: PedigreeLocus,
  sex: RecordedAnimal['sex'],
  reading: ParsedGenes,
  error: number,
  silent: readonly WeightedGenotype[],
  catalogue: Catalogue,
): readonly WeightedGenotype[] {
  const phaseSex = sex === 'female' ? 'female' : 'male';
  const stated = toParent(reading, phaseSex, catalogue).loci.get(locus.id);
  if (!stated) return silent;
  if (error === 0) return stated;
  // Where the statement is wrong, it said nothing.
  return [
    ...stated.map(({ genotype, p }) => ({ genotype, p: p * (1 - error) })),
    ...silent.map(({ genotype, p }) => ({ genotype, p: p * error })),
  ];
}

/** What a founder may be at a locus that its statement does not name. */
function whereSilent(
  locus: PedigreeLocus,
  completeness: Completeness,
  isUnsaid: boolean,
  catalogue: Catalogue,
): readonly WeightedGenotype[] {
  if (completeness === 'nothing-known') return unrecordedFounder(locus);
  if (!isUnsaid || completeness === 'all-known') return WILD_FOR_CERTAIN;
  const rules = catalogue.locusById(locus.id)!;
  const carried = locus.alleles.filter((allele) => isRecessive(rules, allele));
  if (carried.length === 0) return WILD_FOR_CERTAIN;
  return carriedUnseen(carried.map((allele) => [allele, catalogue.frequencyOf(allele)]));
}

/**
 * One that shows no recessive allele of a locus may carry one: both alleles drawn independently (Hardy 1908, Science 28;
 * Weinberg 1908), given that they are not both recessive.
 *
 * @param alleles - each recessive allele with its frequency
 */
export function carriedUnseen(alleles: readonly (readonly [string, number])[]): WeightedGenotype[] {
  const wild = 1 - alleles.reduce((sum, [, frequency]) => sum + frequency, 0);
  const unseen = [
    { genotype: [WILD, WILD] as const, p: wild * wild },
    ...alleles.map(([allele, frequency]) => ({
      genotype: [WILD, allele] as const,
      p: 2 * frequency * wild,
    })),
  ];
  const total = unseen.reduce((sum, { p }) => sum + p, 0);
  return unseen.map(({ genotype, p }) => ({ genotype, p: p / total }));
}
