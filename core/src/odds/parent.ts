import { canonical, type WeightedGenotype } from '../loci/genotype.ts';
import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { WILD, isRecessive, type Locus } from '../loci/locus.ts';
import type { Phase } from '../notation/modifiers.ts';
import { parseGenes, WILD_FOR_CERTAIN } from '../notation/parse.ts';
import type { ParsedGenes } from '../notation/reading.ts';

/** What is known of one parent: locus id -> genotype distribution. A sire's sex-linked pairs are `[X, Y]`. */
export interface Parent {
  readonly loci: ReadonlyMap<string, readonly WeightedGenotype[]>;
}

/** The chance that a gene in brackets is there: neither seen nor excluded. An assumption, stated in docs/science.md. */
export const POSSIBLE = 0.25;

/** The chance that a possible het carries: as with one carrier parent. An assumption, stated in docs/science.md. */
export const POSSIBLE_HET = 0.5;

/**
 * The chance that is taken for a possible allele, where it is the only one of its locus.
 *
 * @example possibleChance(parseGenes('ph clown'), 'clown') // 0.5
 */
export const possibleChance = (
  { possibleHets }: Pick<ParsedGenes, 'possibleHets'>,
  allele: string,
): number => (possibleHets.includes(allele) ? POSSIBLE_HET : POSSIBLE);

/**
 * What is possible besides, added to what is said: each possible allele takes a place that is free, with its chance. A
 * recessive gene in brackets may show, and then takes both.
 */
function withPossible(
  locus: Locus,
  stated: readonly WeightedGenotype[],
  { possible, possibleHets }: Pick<ParsedGenes, 'possible' | 'possibleHets'>,
): readonly WeightedGenotype[] {
  const here = possible.filter((id) => locus.alleles.some((allele) => allele.id === id));
  if (here.length === 0) return stated;
  return stated.flatMap((entry) => {
    const free = entry.genotype.filter((allele) => allele === WILD).length;
    if (free === 0) return [entry];
    const [kept] = entry.genotype.filter((allele) => allele !== WILD);
    const added = here.map((allele): WeightedGenotype => {
      const isHet = possibleHets.includes(allele);
      const shows = isRecessive(locus, allele) && !isHet && free === 2;
      const share = possibleChance({ possibleHets }, allele) / here.length;
      return { genotype: canonical(kept ?? (shows ? allele : WILD), allele), p: entry.p * share };
    });
    const rest = entry.p - added.reduce((sum, { p }) => sum + p, 0);
    return [{ genotype: entry.genotype, p: rest }, ...added];
  });
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
 * Turns a reading into a parent of the given sex. What is possible counts with its chance, never as absent.
 *
 * @example toParent(parseGenes('ph clown'), 'male').loci.get('clown').map(({ p }) => p) // [0.5, 0.5]
 * @example toParent(parseGenes('het clown'), 'male').loci.get('clown').map(({ p }) => p) // [1]
 */
export function toParent(
  parsed: Pick<ParsedGenes, 'loci' | 'phases'> & Partial<Pick<ParsedGenes, 'possible' | 'possibleHets'>>,
  sex: 'female' | 'male',
  catalogue: Catalogue = CATALOGUE,
): Parent {
  const loci = new Map<string, readonly WeightedGenotype[]>();
  const { possible = [], possibleHets = [] } = parsed;
  const named = new Set([...parsed.loci.keys(), ...possible.map((id) => catalogue.alleleById(id)!.locus.id)]);
  for (const id of named) {
    const locus = catalogue.locusById(id)!;
    const stated = parsed.loci.get(id) ?? WILD_FOR_CERTAIN;
    const genotypes = withPossible(locus, stated, { possible, possibleHets });
    const phased = sex === 'male' && locus.sexLinked;
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
