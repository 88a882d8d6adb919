import type { Allele, Compound, Expression, Locus } from '../loci/locus.ts';
import { WILD } from '../loci/locus.ts';
import { BUILT_IN_LOCI, BUILT_IN_VERSION } from './built-in-loci.ts';
import type { OwnMarker } from './trait-markers.ts';
import { gatherMarkers, type CatalogueMarker } from './gather-markers.ts';
import { buildPhrases, type Alias, type Meaning } from './words.ts';

/** What a user adds to the built-in catalogue, or corrects in it. */
export interface CatalogueAdditions {
  /** Genes and lines of one's own. */
  readonly loci?: readonly Locus[];
  /** Further alleles of a locus, and the names of compounds they make. */
  readonly alleles?: readonly {
    readonly locus: string;
    readonly allele: Allele;
    readonly compounds?: readonly Compound[];
  }[];
  readonly aliases?: readonly Alias[];
  /** How alleles show, where the user sees it otherwise. */
  readonly corrections?: readonly {
    readonly allele: string;
    readonly expression: Expression;
    readonly double?: string;
  }[];
  readonly recombination?: readonly { readonly locus: string; readonly recombination: number }[];
  readonly markers?: readonly OwnMarker[];
}

/** The genes that words are read by and claims are made of. */
export interface Catalogue {
  readonly version: string;
  readonly note: string;
  /** In the order in which a label names them: what shows first, recessive loci last. */
  readonly loci: readonly Locus[];
  /** Folded phrase -> its meanings; more than one meaning is an ambiguity. */
  readonly phrases: ReadonlyMap<string, readonly Meaning[]>;
  /** Every marker, each once, with all that it is a marker of. */
  readonly markers: readonly CatalogueMarker[];
  /** Two neighbouring words of any phrase: where a label's words meet in none of these, they cannot run together. */
  readonly joints: ReadonlySet<string>;
  /** Words in the longest phrase: how far a reader has to look ahead. */
  readonly longestPhrase: number;
  locusById(id: string): Locus | undefined;
  alleleById(id: string): { readonly locus: Locus; readonly allele: Allele } | undefined;
  /** The trade name of an allele; wild type and unknown ids come back as they are. */
  alleleName(id: string): string;
  /** Sorts locus ids as a label names them. */
  compareLoci(a: string, b: string): number;
}

/**
 * The built-in catalogue with a user's additions. The additions are checked where they are entered.
 *
 * @example createCatalogue().alleleById('pied').allele.name // "Pied"
 */
export function createCatalogue(additions: CatalogueAdditions = {}): Catalogue {
  const loci = [...BUILT_IN_LOCI, ...(additions.loci ?? [])].map((locus) => withAdditions(locus, additions));
  const byId = new Map(loci.map((locus) => [locus.id, locus]));
  const byAllele = new Map(
    loci.flatMap((locus) => locus.alleles.map((allele) => [allele.id, { locus, allele }] as const)),
  );
  const order = new Map(loci.map((locus, index) => [locus.id, index]));
  const phrases = buildPhrases(loci, additions.aliases ?? []);
  const words = [...phrases.keys()].map((phrase) => phrase.split(' '));
  return {
    version: BUILT_IN_VERSION,
    note: 'Common practice of the trade, no source.',
    loci,
    phrases,
    markers: gatherMarkers(byAllele, additions.markers ?? []),
    joints: new Set(words.flatMap((list) => list.slice(1).map((word, i) => `${list[i]} ${word}`))),
    longestPhrase: Math.max(...words.map((list) => list.length)),
    locusById: (id) => byId.get(id),
    alleleById: (id) => byAllele.get(id),
    alleleName: (id) => (id === WILD ? 'wild type' : (byAllele.get(id)?.allele.name ?? id)),
    compareLoci: (a, b) =>
      (order.get(a) ?? order.size) - (order.get(b) ?? order.size) || (a < b ? -1 : a > b ? 1 : 0),
  };
}

function withAdditions(
  locus: Locus,
  { alleles = [], corrections = [], recombination = [] }: CatalogueAdditions,
): Locus {
  const correct = (allele: Allele): Allele => {
    const correction = corrections.find((entry) => entry.allele === allele.id);
    if (!correction) return allele;
    const { expression, double = allele.double } = correction;
    return { id: allele.id, name: allele.name, expression, ...(double ? { double } : {}) };
  };
  const own = alleles.filter((entry) => entry.locus === locus.id);
  const corrected = recombination.find((entry) => entry.locus === locus.id);
  return {
    ...locus,
    alleles: [...locus.alleles.map(correct), ...own.map(({ allele }) => allele)],
    compounds: [...locus.compounds, ...own.flatMap(({ compounds = [] }) => compounds)],
    ...(corrected && locus.sexLinked ? { sexLinked: { recombination: corrected.recombination } } : {}),
  };
}

/** The built-in catalogue as it ships. */
export const CATALOGUE: Catalogue = createCatalogue();
