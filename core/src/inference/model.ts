import type { Factor } from './factor.ts';

/** A factor with what names it, so that an unchanged one can be told when records change. */
export interface NamedFactor extends Factor {
  readonly name: number;
}

/** A genotype distribution, `[first allele * alleles + second allele]`; unordered pairs stand at first <= second. */
export type Distribution = Float64Array;

/** Variables that always come together: those of a factor, by its place in `LocusModel.factors`, or an open sire or sex. */
export type Block = { readonly factor: number } | { readonly tie: number };

/**
 * Whose marginal a reading needs: the variables of these blocks, in their order. One block is a factor's own marginal; several
 * are a joint one, be they in one table or not.
 */
export type Need = readonly Block[];

/** Animals whose distribution is already known, or follows from some marginals. */
export interface Reading {
  readonly animals: readonly number[];
  readonly needs: readonly Need[];
  /** @param marginals - one for each need, adding up to 1 */
  readonly read: (marginals: readonly Float64Array[]) => Distribution;
}

/** One locus as a product of tables. Animals left out of `readings` are wild type for certain. */
export interface LocusModel {
  readonly factors: readonly NamedFactor[];
  readonly readings: readonly Reading[];
  /** Natural logarithm of what is settled without a table, plain animals aside. */
  readonly logConstant: number;
}
