import { PedigreeEngine } from '../inference/engine.ts';
import { genotypesOf } from '../inference/infer.ts';
import type { Genotype, WeightedGenotype } from '../loci/genotype.ts';
import type { Pedigree } from '../pedigree/document.ts';
import type { StatedClaim } from './stated-claims.ts';
import { aboutLoci, fewestRecords, recordsOf, withOnly, type SupportingRecord } from './support.ts';

/** Documents give six decimals: a record that moves no claim by this much is not needed. */
const SAME_PROBABILITY = 2e-7;

/** A pedigree of this many records is searched for those that matter; a larger one is given whole. */
const REACH = 250;

export interface Essential {
  readonly pedigree: Pedigree;
  /** The probability of each claim, given that pedigree alone; in the order of the claims. */
  readonly p: readonly number[];
  /** What the pedigree's founders and calls were read from. */
  readonly records: readonly SupportingRecord[];
}

/**
 * A smallest part of a pedigree that gives each of an animal's claims the probability that the whole gives it: no record of it
 * can be left out. Cost: one inference for each record taken in.
 *
 * @returns null where the records contradict one another at a claim's locus
 * @throws CostError where an exact answer needs too large a table
 * @example essentialPedigree(compilePedigree([{ id: 'F1', sex: 'female', sires: [], identification: { record: 'r1', genes: 'het clown', sure: 'certain' } }]), 'F1', statedClaims(parseGenes('het clown').loci)).p // [1]
 */
export function essentialPedigree(
  pedigree: Pedigree,
  proband: string,
  claims: readonly Pick<StatedClaim, 'locus' | 'genotypes'>[],
): Essential | null {
  const whole = probabilities(pedigree, proband, claims);
  if (!whole) return null;
  const loci = new Set(claims.map(({ locus }) => locus));
  const agrees = (part: Pedigree): boolean => {
    const found = probabilities(part, proband, claims);
    return found !== null && found.every((p, i) => Math.abs(p - whole[i]!) < SAME_PROBABILITY);
  };
  const atLoci = (part: Pedigree): Pedigree => ({
    ...part,
    loci: part.loci.filter(({ id }) => loci.has(id)),
  });
  const only = (records: ReadonlySet<string>): Pedigree => withOnly(pedigree, proband, loci, records);
  // Other loci matter where they say who the sire is; often they do not.
  const cuts = [(records: ReadonlySet<string>) => atLoci(only(records)), only];
  for (const cut of cuts) {
    const records = fewestRecords(pedigree, proband, REACH, (some) => agrees(cut(some)));
    if (!records) continue;
    const part = cut(new Set(records.map(({ record }) => record)));
    return { pedigree: part, p: probabilities(part, proband, claims)!, records };
  }
  const part = aboutLoci(pedigree, loci);
  const records = part.animals.flatMap((animal) =>
    recordsOf(animal).map((record) => ({ record, animal: animal.id })),
  );
  return { pedigree: part, p: whole, records };
}

/** @returns null where nothing can be said at one of the loci */
function probabilities(
  pedigree: Pedigree,
  proband: string,
  claims: readonly Pick<StatedClaim, 'locus' | 'genotypes'>[],
): number[] | null {
  const engine = new PedigreeEngine(pedigree);
  const animal = engine.index.indexOf.get(proband)!;
  const found: number[] = [];
  for (const { locus, genotypes } of claims) {
    const l = pedigree.loci.findIndex(({ id }) => id === locus);
    if (l < 0 || !engine.distribution(animal, l)) return null;
    found.push(chanceOf(genotypesOf(engine, animal, l), genotypes));
  }
  return found;
}

function chanceOf(distribution: readonly WeightedGenotype[], genotypes: readonly Genotype[]): number {
  const claimed = new Set(genotypes.map((pair) => pair.join('/')));
  return distribution.reduce((sum, { genotype, p }) => (claimed.has(genotype.join('/')) ? sum + p : sum), 0);
}
