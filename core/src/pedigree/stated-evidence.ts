import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import type { WeightedGenotype } from '../loci/genotype.ts';
import { WILD } from '../loci/locus.ts';
import type { Call, CandidateSire, PedigreeAnimal, PedigreeLocus } from './document.ts';
import { plainError } from './looks.ts';

/** What somebody else's pedigree says of one animal. */
export interface StatedEvidence {
  /** The record it stands in here. */
  readonly record: string;
  /** The chance that what this breeder says is wrong, on top of what they said themselves; 0 to below 1. */
  readonly error: number;
  /** Of a founder of that pedigree: locus id -> distribution. */
  readonly founder?: Readonly<Record<string, readonly WeightedGenotype[]>>;
  readonly calls: readonly Call[];
}

/** What a pedigree of other records says of an animal, without whose word it is. */
export type StatedOfAnimal = Pick<StatedEvidence, 'founder' | 'calls'> & {
  readonly dam?: string;
  readonly sires: readonly CandidateSire[];
};

/**
 * What a pedigree says of one of its animals, as far as the catalogue knows its loci and alleles: a locus with an allele that
 * is not known here is left out whole, since its genotypes could not be told apart.
 *
 * @returns with the loci that were left out
 *
 * @example statedOfAnimal({ loci: [{ id: 'nowhere', alleles: ['x'] }], unrecorded: 0.01, animals: [] }, { id: 'F', sex: 'female', founder: { nowhere: [{ genotype: ['+', 'x'], p: 1 }] } }).unknown // ["nowhere"]
 */
export function statedOfAnimal(
  pedigree: { readonly loci: readonly PedigreeLocus[] },
  { dam, sires = [], founder, calls = [] }: Omit<PedigreeAnimal, 'id'> & { readonly id: string },
  catalogue: Catalogue = CATALOGUE,
): { readonly stated: StatedOfAnimal; readonly unknown: readonly string[] } {
  const isKnown = ({ id, alleles }: PedigreeLocus): boolean => {
    const own = catalogue.locusById(id);
    return own !== undefined && alleles.every((allele) => own.alleles.some((one) => one.id === allele));
  };
  const known = new Set(pedigree.loci.filter(isKnown).map(({ id }) => id));
  const named = [...Object.keys(founder ?? {}), ...calls.map(({ locus }) => locus)];
  return {
    stated: {
      ...(dam === undefined ? {} : { dam }),
      sires,
      ...(founder
        ? { founder: Object.fromEntries(Object.entries(founder).filter(([locus]) => known.has(locus))) }
        : {}),
      calls: calls
        .filter(({ locus }) => known.has(locus))
        .map((call) => ({ locus: call.locus, is: call.is, error: plainError(call) })),
    },
    unknown: [...new Set(named.filter((locus) => !known.has(locus)))],
  };
}

/** The alleles beside wild type that evidence names, by locus. */
export function allelesNamedBy({
  founder,
  calls,
}: StatedEvidence): (readonly [locus: string, allele: string])[] {
  const genotypes = [
    ...Object.entries(founder ?? {}).flatMap(([locus, all]) =>
      all.map(({ genotype }) => [locus, genotype] as const),
    ),
    ...calls.flatMap(({ locus, is }) => is.map((genotype) => [locus, genotype] as const)),
  ];
  return genotypes.flatMap(([locus, genotype]) =>
    genotype.filter((allele) => allele !== WILD).map((allele) => [locus, allele] as const),
  );
}

/**
 * The calls as this collection takes them: wrong where the breeder is, or where the call was.
 *
 * @param loci - of the collection: a gene of its own may have been taken out of its catalogue since
 */
export function callsOf(
  { calls, error: doubt, record }: StatedEvidence,
  loci: readonly PedigreeLocus[],
): Call[] {
  const known = calls.filter(({ locus }) => loci.some(({ id }) => id === locus));
  return known.map(({ locus, is, error = 0 }) => ({
    locus,
    is,
    error: 1 - (1 - error) * (1 - doubt),
    record,
  }));
}

/**
 * A founder's distribution as this collection takes it: what the breeder says, or, as far as they are doubted, what is known of
 * nobody.
 */
export function founderAt(
  { founder, error }: StatedEvidence,
  locus: string,
  unknown: readonly WeightedGenotype[],
): readonly WeightedGenotype[] {
  const stated = founder?.[locus];
  // A locus that the breeder's statement leaves out says nothing: it holds what its claims rest on, and no more.
  if (!stated) return unknown;
  if (error === 0) return stated;
  const mixed = new Map<string, WeightedGenotype>();
  const add = ({ genotype, p }: WeightedGenotype, share: number): void => {
    const key = genotype.join('/');
    mixed.set(key, { genotype, p: (mixed.get(key)?.p ?? 0) + p * share });
  };
  stated.forEach((one) => add(one, 1 - error));
  unknown.forEach((one) => add(one, error));
  return [...mixed.values()];
}
