import { allGenotypes, viabilityOf, type WeightedGenotype } from '../loci/genotype.ts';
import type { Locus } from '../loci/locus.ts';
import type { Call, PedigreeLocus } from './document.ts';

/**
 * What it says of an animal that it hatched: each genotype is as likely to be seen alive as it is viable. Written as calls,
 * so that a document carries it: one without error for what never lives, and one for each lesser viability, whose error
 * over the rest is that viability.
 *
 * @param rules - the catalogue's locus, of which the pedigree has some alleles
 */
export function livingCalls(locus: PedigreeLocus, rules: Locus): Call[] {
  if (!rules.viability) return [];
  const genotypes = allGenotypes(locus.alleles).map((genotype) => ({
    genotype,
    p: viabilityOf(rules, genotype),
  }));
  return [...new Set(genotypes.map(({ p }) => p))]
    .filter((p) => p < 1)
    .map((viability) => ({
      locus: locus.id,
      is: genotypes.filter(({ p }) => p !== viability).map(({ genotype }) => genotype),
      error: viability / (1 + viability),
      isSurvival: true as const,
    }))
    .filter(({ is }) => is.length > 0);
}

/** A founder's distribution, given that it lives; as it was where all of it is said not to live. */
export function livingFounder(
  rules: Locus,
  stated: readonly WeightedGenotype[],
): readonly WeightedGenotype[] {
  if (!rules.viability) return stated;
  const weighed = stated.map(({ genotype, p }) => ({ genotype, p: p * viabilityOf(rules, genotype) }));
  const total = weighed.reduce((sum, { p }) => sum + p, 0);
  if (total <= 0) return stated;
  return weighed.filter(({ p }) => p > 0).map(({ genotype, p }) => ({ genotype, p: p / total }));
}
