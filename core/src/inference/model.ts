import type { Factor } from './factor.ts';

/** A factor with what names it, so that an unchanged one can be told when records change. */
export interface NamedFactor extends Factor {
  readonly name: number;
}

/** A genotype distribution, `[first allele * alleles + second allele]`; unordered pairs stand at first <= second. */
export type Distribution = Float64Array;

/** Animals whose distribution is already known, or follows from the marginals of some factors. */
export interface Reading {
  readonly animals: readonly number[];
  /** Places in `LocusModel.factors` whose marginals `read` needs. */
  readonly needs: readonly number[];
  /** @param marginals - over each needed factor's scope, adding up to 1 */
  readonly read: (marginals: readonly Float64Array[]) => Distribution;
}

/** One locus as a product of tables. Animals left out of `readings` are wild type for certain. */
export interface LocusModel {
  readonly factors: readonly NamedFactor[];
  readonly readings: readonly Reading[];
  /** Natural logarithm of what is settled without a table, plain animals aside. */
  readonly logConstant: number;
}
