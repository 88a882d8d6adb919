import type { Catalogue } from '../catalogue/catalogue.ts';
import type { CatalogueMarker } from '../catalogue/gather-markers.ts';
import { appearance, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import { WILD, type Locus } from '../loci/locus.ts';
import { genotypeLabel } from '../notation/label.ts';
import { coverOn, showsMarker } from './cover.ts';

/** What an animal can be before it is looked at, given one sire and one sex: loci are then independent. */
export interface Hypothesis {
  readonly sire: string | null;
  readonly sex: 'female' | 'male';
  /** A probability; over the hypotheses of one animal they add up to 1. */
  readonly weight: number;
  readonly loci: readonly { readonly locus: string; readonly genotypes: readonly WeightedGenotype[] }[];
}

/** The possible phenotypes of one animal as a box of numbers: every combination of what its loci can show. */
export interface PhenotypeSpace {
  readonly loci: readonly { readonly locus: Locus; readonly phenotypes: readonly string[] }[];
  readonly size: number;
  /** One for each combination, row-major over `loci`, the last one fastest; adds up to 1. */
  readonly before: Float64Array;
  readonly after: Float64Array;
}

/** Fainter than this, a look is none. */
export const NEGLIGIBLE = 1e-9;

/**
 * What can show at each locus over all hypotheses, wild type first. Loci at which nothing can show are left out.
 *
 * @param least - genotypes no likelier than this, given sire and sex, are left out
 */
export function phenotypesOf(
  hypotheses: readonly Hypothesis[],
  catalogue: Catalogue,
  least = NEGLIGIBLE,
): PhenotypeSpace['loci'] {
  const found = new Map<string, Set<string>>();
  const open = hypotheses.filter(({ weight }) => weight > 0);
  for (const id of new Set(open.flatMap(({ loci }) => loci.map(({ locus }) => locus)))) {
    const locus = catalogue.locusById(id)!;
    // A hypothesis that says nothing of a locus has it wild: a gene that only one sire carries.
    const genotypes = open.flatMap(
      ({ loci }) => loci.find((one) => one.locus === id)?.genotypes ?? WILD_ONLY,
    );
    const shown = genotypes.filter(({ p }) => p > least).map(({ genotype }) => appearance(locus, genotype));
    found.set(id, new Set(shown));
  }
  return [...found]
    .filter(([, set]) => set.size > 1 || !set.has(''))
    .toSorted(([a], [b]) => catalogue.compareLoci(a, b))
    .map(([id, set]) => ({ locus: catalogue.locusById(id)!, phenotypes: [...set].toSorted() }));
}

/** One hypothesis's share of every combination: its weight times the product over its loci. */
export function spread(
  loci: PhenotypeSpace['loci'],
  { weight, loci: known }: Hypothesis,
  likelihood: (locus: Locus, genotype: Genotype) => number,
): Float64Array {
  let table = Float64Array.of(weight);
  for (const { locus, phenotypes } of loci) {
    const genotypes = known.find((one) => one.locus === locus.id)?.genotypes ?? WILD_ONLY;
    const shares = new Float64Array(phenotypes.length);
    for (const { genotype, p } of genotypes) {
      const at = phenotypes.indexOf(appearance(locus, genotype));
      if (at >= 0) shares[at]! += p * likelihood(locus, genotype);
    }
    const wider = new Float64Array(table.length * phenotypes.length);
    for (let i = 0; i < table.length; i++)
      for (let j = 0; j < shares.length; j++) wider[i * shares.length + j] = table[i]! * shares[j]!;
    table = wider;
  }
  return table;
}

/** Where nothing is said of a locus. */
export const WILD_ONLY: readonly WeightedGenotype[] = [{ genotype: [WILD, WILD], p: 1 }];

/** The tables added up, and all of that made to add up to 1. */
export function mix(tables: readonly Float64Array[], size: number): Float64Array {
  const sum = new Float64Array(size);
  for (const table of tables) for (let i = 0; i < size; i++) sum[i]! += table[i]!;
  const total = totalOf(sum);
  return total > 0 ? sum.map((p) => p / total) : sum;
}

export const totalOf = (table: Float64Array): number => table.reduce((sum, p) => sum + p, 0);

/** A marker over all combinations: the chance that it is seen on an animal that looks so, and whether its gene shows. */
export interface MarkerTable {
  readonly seen: Float64Array;
  readonly shows: Uint8Array;
}

/** @returns null where no combination shows the marker's gene: it then distinguishes nothing */
export function tabulate(
  space: PhenotypeSpace['loci'],
  size: number,
  marker: CatalogueMarker,
  catalogue: Catalogue,
): MarkerTable | null {
  const shown = space.map(({ phenotypes }) => phenotypes.map((text) => showsMarker(marker, text)));
  if (!shown.some((list) => list.includes(true))) return null;
  const covers = space.map(({ locus, phenotypes }, l) =>
    phenotypes.map((text, at) => (shown[l]![at] ? 0 : coverOn(catalogue, locus, text, marker))),
  );
  const seen = new Float64Array(size);
  const shows = new Uint8Array(size);
  const at = new Int32Array(space.length);
  for (let i = 0; i < size; i++) {
    let isShown = false;
    let open = 1;
    for (let l = 0; l < space.length; l++) {
      isShown ||= shown[l]![at[l]!]!;
      open *= 1 - covers[l]![at[l]!]!;
    }
    seen[i] = isShown ? open * marker.pWith + (1 - open) * marker.pWithout : marker.pWithout;
    shows[i] = isShown ? 1 : 0;
    for (let l = space.length - 1; l >= 0 && ++at[l]! === space[l]!.phenotypes.length; l--) at[l] = 0;
  }
  return { seen, shows };
}

/** What shows in one combination. */
export function phenotypeAt(loci: PhenotypeSpace['loci'], cell: number): Record<string, string> {
  const phenotype: Record<string, string> = {};
  let rest = cell;
  for (let l = loci.length - 1; l >= 0; l--) {
    const { locus, phenotypes: all } = loci[l]!;
    const text = all[rest % all.length]!;
    if (text !== '') phenotype[locus.id] = text;
    rest = Math.floor(rest / all.length);
  }
  return phenotype;
}

/**
 * The label of an animal that shows this and nothing else.
 *
 * @example phenotypeLabel({ pastel: 'pastel' }, CATALOGUE) // "Pastel"
 */
export function phenotypeLabel(phenotype: Readonly<Record<string, string>>, catalogue: Catalogue): string {
  return genotypeLabel(
    Object.fromEntries(
      Object.entries(phenotype).map(([locus, text]): [string, Genotype] => {
        const [a, b] = text.split('/');
        return [locus, [b === undefined ? WILD : a!, b ?? a!]];
      }),
    ),
    catalogue,
  );
}
