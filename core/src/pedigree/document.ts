import type { Genotype, WeightedGenotype } from '../loci/genotype.ts';

/** A locus as a pedigree carries it: the alleles beside wild type. */
export interface PedigreeLocus {
  readonly id: string;
  readonly alleles: readonly string[];
  readonly sexLinked?: boolean;
  /** Present on a sex-linked locus, within 0 to 0.5. */
  readonly recombination?: number;
}

/** An observation: the true genotype is one of `is`, unless the call is wrong (chance `error`). Calls never see phase. */
export interface Call {
  readonly locus: string;
  readonly is: readonly Genotype[];
  readonly error?: number;
  /** The likelihood of a genotype that is not in `is`, where it is not the whole `error`: a share of it. */
  readonly outside?: number;
  /** The record the call was read from. */
  readonly record?: string;
  /** Not what somebody saw there, but that the animal lives. */
  readonly isSurvival?: true;
}

export interface CandidateSire {
  readonly id: string;
  /** Relative weight, above 0. */
  readonly weight: number;
}

export interface PedigreeAnimal {
  readonly id: string;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly dam?: string;
  /** Each offspring has one of them for its sire, the same at every locus. */
  readonly sires?: readonly CandidateSire[];
  /** The dam bred without a male: both alleles at every locus are copies of one of hers. Only without young of its own. */
  readonly bredAlone?: boolean;
  /** Founders only. Locus id -> distribution; a sex-linked pair of a male is `[X, Y]`. Left out: wild type. */
  readonly founder?: Readonly<Record<string, readonly WeightedGenotype[]>>;
  /** The record the founder's genes were stated in; without one nothing is known of the founder. */
  readonly founderRecord?: string;
  /** Loci at which the founder's statement names no recessive gene, and young say that there is one. */
  readonly unsaid?: readonly string[];
  readonly calls?: readonly Call[];
}

/** A whole pedigree, with loci of its own. */
export interface Pedigree {
  readonly loci: readonly PedigreeLocus[];
  /** Frequency of each listed allele in an unrecorded parent. */
  readonly unrecorded: number;
  readonly animals: readonly PedigreeAnimal[];
}

/** Default frequency of an allele in a parent nobody recorded: an assumption, stated wherever it enters. */
export const UNRECORDED_FREQUENCY = 0.01;
