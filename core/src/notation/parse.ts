import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { canonical, type WeightedGenotype } from '../loci/genotype.ts';
import { WILD } from '../loci/locus.ts';
import { finishReading } from './finish.ts';
import { Reader } from './reader.ts';
import type { ParsedGenes } from './reading.ts';
import { nest, tokenize } from './tokens.ts';

/**
 * Reads trade shorthand ("Cinnamon YB 66% het Clown (OD)"), in any order and case.
 *
 * A gene named visual means one copy where one copy shows and two where it is recessive; `super` means two. A modifier
 * before a combination or a bracket holds for all its genes; a gene in a bracket without a word of its own is possible.
 * What cannot be placed, or can mean two things, comes back in `unknown` with suggestions and is never guessed.
 *
 * @param text - at most a few hundred characters; longer texts are read all the same
 * @example parseGenes('Pastel het Clown').unknown // []
 * @example parseGenes('het Clown Pied').unknown.map(({ suggestions }) => suggestions) // [["Het Pied", "Visual Pied"]]
 */
export function parseGenes(text: string, catalogue: Catalogue = CATALOGUE): ParsedGenes {
  const reader = new Reader(text, catalogue);
  reader.readAll(nest(tokenize(text)));
  return finishReading(reader);
}

/** The distribution of a locus that no text names. */
export const WILD_FOR_CERTAIN: readonly WeightedGenotype[] = [{ genotype: canonical(WILD, WILD), p: 1 }];
