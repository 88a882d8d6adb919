import type { Factor } from './factor.ts';

/** A factor with what names it, so that an unchanged one can be told when records change. */
export interface NamedFactor extends Factor {
  readonly name: number;
  /** Whether a reading needs its marginal. */
  readonly isRead: boolean;
}

/** A genotype distribution, `[first allele * alleles + second allele]`; unordered pairs stand at first <= second. */
export type Distribution = Float64Array;

/**
 * Variables that always come together: those of a factor, by its place in `LocusModel.factors`; an animal's own alleles; or an
 * open sire or sex.
 */
export type Block = { readonly factor: number } | { readonly own: number } | { readonly tie: number };

/** Whose joint marginal a reading needs: the variables of these blocks, in their order, be they in one table or not. */
export type Need = readonly Block[];

/**
 * The alleles of an animal of whose young nothing that was seen depends on them: they stand in no table, and follow from its
 * parents' (barren nodes: Shachter 1986, Operations Research 34).
 */
export interface Derived {
  /** Of any two of which one descends from the other, the descendant's is lower. */
  readonly order: number;
  /** How many states its alleles have. */
  readonly states: number;
  /** Added up: one for all candidate sires who transmit alike. */
  readonly terms: readonly {
    /** Where the sire is open: his variable, of how many candidates, and which of them this is of. */
    readonly choice: {
      readonly tie: number;
      readonly candidates: number;
      readonly places: readonly number[];
    } | null;
    readonly given: Need;
    /** `[state of the given blocks][own state]`: the chance of each own state. */
    readonly table: Float64Array;
  }[];
}

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
  /** Animal -> the place of the factor of its own alleles. */
  readonly owns: ReadonlyMap<number, number>;
  /** Animal -> how its own alleles follow, where they have no factor. */
  readonly derived: ReadonlyMap<number, Derived>;
  /** Natural logarithm of what is settled without a table, plain animals aside. */
  readonly logConstant: number;
}
