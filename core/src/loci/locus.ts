/** How one allele shows over wild type: `recessive` needs two copies, `dominant` looks the same with two. */
export type Expression = 'recessive' | 'incomplete-dominant' | 'dominant';

/** The most alleles a locus may list: sets of alleles are bits of one number. */
export const MOST_ALLELES = 23;

/** The wild type allele, present at every locus without being listed. */
export const WILD = '+';

export interface Allele {
  /** Kebab-case, unique over the whole catalogue. */
  readonly id: string;
  readonly name: string;
  readonly expression: Expression;
  /** The trade's own name of the animal with two copies, where it has one. */
  readonly double?: string;
}

export interface Compound {
  /** Two allele ids of one locus, sorted. */
  readonly alleles: readonly [string, string];
  readonly name: string;
}

/**
 * What a gene covers when it shows. `everything`: hardly any other gene can be seen on it, so not seeing one says
 * nothing. `black`: covers markers that are made of black. `pattern`: covers pattern where it is white.
 */
export type Hides = 'everything' | 'black' | 'pattern';

export interface Locus {
  readonly id: string;
  readonly name: string;
  readonly alleles: readonly Allele[];
  readonly compounds: readonly Compound[];
  /** Present on a locus of the sex chromosomes: the chance that sex and allele recombine in a male. */
  readonly sexLinked?: { readonly recombination: number };
  /** A look of which nobody knows yet whether it is inherited: nothing is inferred from it. */
  readonly isUnproven?: true;
  /** What one visible copy (recessive: two copies) hides. */
  readonly hides?: Hides;
  /** What any two copies of this locus' alleles hide, where it differs from one copy. */
  readonly doublesHide?: Hides;
  /** Which of them do, as `appearance()` words them; all, where it is left out. */
  readonly doublesThatHide?: readonly string[];
  /** How many eggs of a genotype live to hatch, where not all do; a genotype that is left out lives. */
  readonly viability?: readonly Viability[];
  /** What doubles and compounds look like, in words. */
  readonly notes?: readonly string[];
  /** Cautions to show at pairing time and on the listing. */
  readonly welfare?: readonly WelfareNote[];
}

/** The chance that an egg of this genotype hatches, beside one that nothing is against. */
export interface Viability {
  /** Sorted, `+` first. */
  readonly genotype: readonly [string, string];
  /** Within 0 (it never does) to 1. */
  readonly p: number;
}

/** A caution, and from how many copies of these alleles together it applies. */
export interface WelfareNote {
  readonly alleles: readonly string[];
  readonly copies: 1 | 2;
  readonly text: string;
}

export function isRecessive(locus: Locus, alleleId: string): boolean {
  return locus.alleles.some((allele) => allele.id === alleleId && allele.expression === 'recessive');
}
