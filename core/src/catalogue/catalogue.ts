import type { Allele, Compound, Expression, Locus, Viability } from '../loci/locus.ts';
import { isRecessive, WILD } from '../loci/locus.ts';
import { locusAsOf } from './data/updates.ts';
import { BUILT_IN_LOCI, BUILT_IN_VERSION } from './data/main-loci.ts';
import type { OwnMarker } from './trait-markers.ts';
import { gatherMarkers, type CatalogueMarker } from './gather-markers.ts';
import { buildNames, type Alias, type Meaning } from './words.ts';

/** The trade's frequency of a recessive gene where nothing is said of it. An assumption, stated in docs/science.md. */
export const UNSAID_FREQUENCY = 0.01;

/** What a user adds to the built-in catalogue, or corrects in it. */
export interface CatalogueAdditions {
  /** The version of the built-in catalogue whose readings hold; left out: the present one. */
  readonly asOf?: string;
  /** Genes and lines of one's own. */
  readonly loci?: readonly Locus[];
  /** Further alleles of a locus, and the names of compounds they make. */
  readonly alleles?: readonly {
    readonly locus: string;
    readonly allele: Allele;
    readonly compounds?: readonly Compound[];
  }[];
  /** Names of two alleles of a locus together, in place of what the catalogue calls them. */
  readonly compounds?: readonly Compound[];
  /** How many eggs of a genotype live, in place of what the catalogue says. */
  readonly viability?: readonly Viability[];
  /** Alleles that belong to another locus than the catalogue says. */
  readonly allelism?: readonly { readonly allele: string; readonly locus: string }[];
  /** The loci that a label names first; the others follow in the catalogue's order. */
  readonly labelOrder?: readonly string[];
  readonly aliases?: readonly Alias[];
  /** How alleles show, where the user sees it otherwise. */
  readonly corrections?: readonly {
    readonly allele: string;
    readonly expression: Expression;
    readonly double?: string;
  }[];
  /** How often breeders' animals carry a recessive gene unsaid, where the user knows it otherwise. */
  readonly frequencies?: readonly { readonly allele: string; readonly frequency: number }[];
  readonly recombination?: readonly { readonly locus: string; readonly recombination: number }[];
  readonly markers?: readonly OwnMarker[];
}

/** The genes that words are read by and claims are made of. */
export interface Catalogue {
  readonly version: string;
  readonly note: string;
  /** In the order in which a label names them: what shows first, recessive loci last. */
  readonly loci: readonly Locus[];
  /** Squeezed name -> its meanings; more than one meaning is an ambiguity. */
  readonly names: ReadonlyMap<string, readonly Meaning[]>;
  /** Every marker, each once, with all that it is a marker of. */
  readonly markers: readonly CatalogueMarker[];
  /** Words in the longest name: how far a reader has to look ahead. */
  readonly longestName: number;
  /** A name as it is written, by its squeezed spelling. */
  spellingOf(squeezed: string): string;
  locusById(id: string): Locus | undefined;
  alleleById(id: string): { readonly locus: Locus; readonly allele: Allele } | undefined;
  /** The trade name of an allele; wild type and unknown ids come back as they are. */
  alleleName(id: string): string;
  /** The trade name of two alleles of one locus on one animal: "Ivory", "Freeway", "Super Enchi", "Lesser Phantom". */
  pairName(alleles: readonly [string, string]): string;
  /** How often an animal of which nobody said so carries a recessive allele, per place at its locus. */
  frequencyOf(allele: string): number;
  /** Sorts locus ids as a label names them. */
  compareLoci(a: string, b: string): number;
}

/**
 * The built-in catalogue with a user's additions. The additions are checked where they are entered.
 *
 * @example createCatalogue().alleleById('pied').allele.name // "Pied"
 */
export function createCatalogue(additions: CatalogueAdditions = {}): Catalogue {
  const { asOf = BUILT_IN_VERSION } = additions;
  const builtIn =
    asOf === BUILT_IN_VERSION ? BUILT_IN_LOCI : BUILT_IN_LOCI.map((one) => locusAsOf(one, asOf));
  const listed = withAllelism([...builtIn, ...(additions.loci ?? [])], additions.allelism ?? []);
  const loci = inLabelOrder(
    listed.map((locus) => withAdditions(locus, additions)),
    additions.labelOrder ?? [],
  );
  const byId = new Map(loci.map((locus) => [locus.id, locus]));
  const byAllele = new Map(
    loci.flatMap((locus) => locus.alleles.map((allele) => [allele.id, { locus, allele }] as const)),
  );
  const order = new Map(loci.map((locus, index) => [locus.id, index]));
  const { names, spellings, longest } = buildNames(loci, additions.aliases ?? []);
  const frequencies = new Map(
    (additions.frequencies ?? []).map(({ allele, frequency }) => [allele, frequency]),
  );
  const alleleName = (id: string): string =>
    id === WILD ? 'wild type' : (byAllele.get(id)?.allele.name ?? id);
  return {
    version: asOf,
    note: 'Common practice of the trade, no source.',
    loci,
    names,
    markers: gatherMarkers(byAllele, additions.markers ?? []),
    longestName: longest,
    spellingOf: (squeezed) =>
      (spellings.get(squeezed) ?? squeezed).replace(/\b[a-z]/g, (letter) => letter.toUpperCase()),
    locusById: (id) => byId.get(id),
    alleleById: (id) => byAllele.get(id),
    alleleName,
    frequencyOf: (id) => frequencies.get(id) ?? UNSAID_FREQUENCY,
    pairName: ([a, b]) => {
      const { locus, allele } = byAllele.get(a)!;
      if (a === b) return isRecessive(locus, a) ? allele.name : (allele.double ?? `Super ${allele.name}`);
      const compound = locus.compounds.find(({ alleles }) => alleles.includes(a) && alleles.includes(b));
      return compound?.name ?? `${alleleName(a)} ${alleleName(b)}`;
    },
    compareLoci: (a, b) =>
      (order.get(a) ?? order.size) - (order.get(b) ?? order.size) || (a < b ? -1 : a > b ? 1 : 0),
  };
}

/** Whether two alleles are both of these; the wild type always is. */
const pairsAmong =
  (alleles: readonly Allele[]) =>
  (pair: readonly string[]): boolean =>
    pair.every((id) => id === WILD || alleles.some((allele) => allele.id === id));

/** Loci with alleles moved to where the user sees them; what was said of their old company goes. */
function withAllelism(
  loci: readonly Locus[],
  moves: NonNullable<CatalogueAdditions['allelism']>,
): readonly Locus[] {
  if (moves.length === 0) return loci;
  const target = new Map(moves.map(({ allele, locus }) => [allele, locus]));
  const moved = loci.flatMap((locus) =>
    locus.alleles
      .filter(({ id }) => target.has(id) && target.get(id) !== locus.id)
      .map((allele) => ({ allele, to: target.get(allele.id)!, viability: locus.viability ?? [] })),
  );
  const isMoved = (id: string): boolean => moved.some(({ allele }) => allele.id === id);
  return loci.flatMap((locus) => {
    const arriving = moved.filter(({ to }) => to === locus.id);
    const alleles = [...locus.alleles.filter(({ id }) => !isMoved(id)), ...arriving.map((one) => one.allele)];
    if (alleles.length === locus.alleles.length && arriving.length === 0) return [locus];
    if (alleles.length === 0) return [];
    const isHere = pairsAmong(alleles);
    const viability = [...(locus.viability ?? []), ...arriving.flatMap((one) => one.viability)];
    const here = viability.filter(({ genotype }) => isHere(genotype));
    const { viability: _before, ...rest } = locus;
    return [
      {
        ...rest,
        alleles,
        compounds: locus.compounds.filter((compound) => isHere(compound.alleles)),
        ...(here.length > 0 ? { viability: here } : {}),
      },
    ];
  });
}

function inLabelOrder(loci: readonly Locus[], first: readonly string[]): readonly Locus[] {
  if (first.length === 0) return loci;
  const place = new Map(first.map((id, at) => [id, at]));
  return loci.toSorted((a, b) => (place.get(a.id) ?? first.length) - (place.get(b.id) ?? first.length));
}

function withAdditions(
  locus: Locus,
  { alleles = [], corrections = [], recombination = [], ...more }: CatalogueAdditions,
): Locus {
  const correct = (allele: Allele): Allele => {
    const correction = corrections.find((entry) => entry.allele === allele.id);
    if (!correction) return allele;
    const { expression, double = allele.double } = correction;
    return { id: allele.id, name: allele.name, expression, ...(double ? { double } : {}) };
  };
  const own = alleles.filter((entry) => entry.locus === locus.id);
  const corrected = recombination.find((entry) => entry.locus === locus.id);
  const { viability: _viability, ...rest } = locus;
  return {
    ...rest,
    alleles: [...locus.alleles.map(correct), ...own.map(({ allele }) => allele)],
    ...pairsOf(locus, [...locus.alleles, ...own.map(({ allele }) => allele)], more, [
      ...locus.compounds,
      ...own.flatMap(({ compounds = [] }) => compounds),
    ]),
    ...(corrected && locus.sexLinked ? { sexLinked: { recombination: corrected.recombination } } : {}),
  };
}

/** Names and viabilities of two alleles together, the user's in place of the catalogue's. */
function pairsOf(
  locus: Locus,
  alleles: readonly Allele[],
  { compounds = [], viability = [] }: Pick<CatalogueAdditions, 'compounds' | 'viability'>,
  known: readonly Compound[],
): Pick<Locus, 'compounds' | 'viability'> {
  const isHere = pairsAmong(alleles);
  const same = (a: readonly string[], b: readonly string[]): boolean => a.join() === b.join();
  const named = compounds.filter((one) => isHere(one.alleles));
  const lives = viability.filter((one) => isHere(one.genotype));
  const all = [
    ...(locus.viability ?? []).filter((one) => !lives.some((own) => same(own.genotype, one.genotype))),
    ...lives,
  ].filter(({ p }) => p < 1);
  return {
    compounds: [...known.filter((one) => !named.some((own) => same(own.alleles, one.alleles))), ...named],
    ...(all.length > 0 ? { viability: all } : {}),
  };
}

/** The built-in catalogue as it ships. */
export const CATALOGUE: Catalogue = createCatalogue();
