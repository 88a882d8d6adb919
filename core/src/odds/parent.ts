import type { WeightedGenotype } from '../loci/genotype.ts';
import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { parseGenes, WILD_FOR_CERTAIN, type ParsedGenes, type Phase } from '../notation/parse.ts';

/** What is known of one parent: locus id -> genotype distribution. A sire's sex-linked pairs are `[X, Y]`. */
export interface Parent {
  readonly loci: ReadonlyMap<string, readonly WeightedGenotype[]>;
}

/** A sire's unordered sex-linked pair, spread over its two phases where the text does not tell which. */
function withPhase(entry: WeightedGenotype, phase: Phase | undefined): WeightedGenotype[] {
  const [low, high] = entry.genotype;
  if (low === high) return [entry];
  const onY: WeightedGenotype = { genotype: [low, high], p: entry.p };
  const onX: WeightedGenotype = { genotype: [high, low], p: entry.p };
  if (phase === 'male-maker') return [onY];
  if (phase === 'female-maker') return [onX];
  return [
    { ...onX, p: entry.p / 2 },
    { ...onY, p: entry.p / 2 },
  ];
}

/**
 * Turns a reading into a parent of the given sex.
 *
 * @example toParent(parseGenes('het clown'), 'male').loci.get('clown').map(({ p }) => p) // [1]
 */
export function toParent(
  parsed: Pick<ParsedGenes, 'loci' | 'phases'>,
  sex: 'female' | 'male',
  catalogue: Catalogue = CATALOGUE,
): Parent {
  const loci = new Map<string, readonly WeightedGenotype[]>();
  for (const [id, genotypes] of parsed.loci) {
    const phased = sex === 'male' && catalogue.locusById(id)?.sexLinked;
    loci.set(id, phased ? genotypes.flatMap((entry) => withPhase(entry, parsed.phases.get(id))) : genotypes);
  }
  return { loci };
}

/**
 * Reads a parent from trade shorthand.
 *
 * @example parseParent('Pastel', 'male').parsed.unknown // []
 */
export function parseParent(
  text: string,
  sex: 'female' | 'male',
  catalogue: Catalogue = CATALOGUE,
): { readonly parent: Parent; readonly parsed: ParsedGenes } {
  const parsed = parseGenes(text, catalogue);
  return { parent: toParent(parsed, sex, catalogue), parsed };
}

/** A parent's distribution at a locus; wild type where nothing is said. */
export function distributionAt(parent: Parent, locus: string): readonly WeightedGenotype[] {
  return parent.loci.get(locus) ?? WILD_FOR_CERTAIN;
}
