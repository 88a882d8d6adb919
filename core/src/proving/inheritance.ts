import type { WeightedGenotype } from '../loci/genotype.ts';
import { WILD } from '../loci/locus.ts';
import { UNRECORDED_FREQUENCY } from '../pedigree/document.ts';

/** How a look that nobody has proven may be inherited. */
export const INHERITANCES = ['one-copy', 'two-copies', 'not-inherited'] as const;
export type Inheritance = (typeof INHERITANCES)[number];

/** A look comes by chance, or is seen where it is not, so often. An assumption, stated in docs/science.md. */
export const LOOKS_BY_CHANCE = 0.01;

/** The allele that would make the look. */
export const LOOK = 'look';
export const LOOK_PAIRS = [
  [WILD, WILD],
  [WILD, LOOK],
  [LOOK, LOOK],
] as const;

const q = UNRECORDED_FREQUENCY;
/** What an animal may be of which nothing is known: in Hardy-Weinberg proportions. */
export const ANYBODY: readonly WeightedGenotype[] = [
  { genotype: LOOK_PAIRS[0], p: (1 - q) ** 2 },
  { genotype: LOOK_PAIRS[1], p: 2 * q * (1 - q) },
  { genotype: LOOK_PAIRS[2], p: q ** 2 },
];
