import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { isRecessive, WILD } from '../loci/locus.ts';
import { canonicalLabel, joinWords, NORMAL, type Labelled } from './label.ts';
import { parseGenes } from './parse.ts';

/** A combination's name, and the copies of each allele that it stands for. */
interface Combination {
  readonly name: string;
  readonly copies: ReadonlyMap<string, number>;
}

/** Largest first, then as the catalogue lists them. One meaning only: others are asked about. */
const COMBINATIONS = new WeakMap<Catalogue, readonly Combination[]>();

function combinationsOf(catalogue: Catalogue): readonly Combination[] {
  let known = COMBINATIONS.get(catalogue);
  if (known) return known;
  known = [...catalogue.names]
    .flatMap(([key, meanings]) => {
      const [meaning] = meanings;
      if (meanings.length !== 1 || meaning?.kind !== 'combination') return [];
      const reading = parseGenes(meaning.genes, catalogue);
      if (reading.unknown.length > 0 || reading.possible.length > 0) return [];
      const copies = shownCopies(reading, catalogue);
      return copies.size > 1 ? [{ name: catalogue.spellingOf(key), copies }] : [];
    })
    .toSorted((a, b) => b.copies.size - a.copies.size);
  COMBINATIONS.set(catalogue, known);
  return known;
}

/** The alleles that surely show, with their copies; what is carried or open is no part of a combination's name. */
function shownCopies({ loci }: Pick<Labelled, 'loci'>, catalogue: Catalogue): Map<string, number> {
  const copies = new Map<string, number>();
  for (const [id, genotypes] of loci) {
    if (genotypes.length !== 1) continue;
    const locus = catalogue.locusById(id)!;
    const alleles = genotypes[0]!.genotype.filter((allele) => allele !== WILD);
    if (alleles.length === 1 && isRecessive(locus, alleles[0]!)) continue;
    for (const allele of alleles) copies.set(allele, (copies.get(allele) ?? 0) + 1);
  }
  return copies;
}

/**
 * The label by the names of combinations, where any fits: "Killer Bee Het Clown" for Super Pastel Spider Het Clown. Largest
 * combinations first; a gene is named once.
 *
 * @returns null where no combination fits
 * @example combinationLabel(parseGenes('pastel spider het clown')) // "Bumblebee Het Clown"
 */
export function combinationLabel(parsed: Labelled, catalogue: Catalogue = CATALOGUE): string | null {
  const shown = shownCopies(parsed, catalogue);
  const named: string[] = [];
  const loci = new Map(parsed.loci);
  for (const { name, copies } of combinationsOf(catalogue)) {
    if (![...copies].every(([allele, count]) => shown.get(allele) === count)) continue;
    const places = [...copies.keys()].map((allele) => catalogue.alleleById(allele)!.locus.id);
    // A compound is named whole or not at all.
    const isWhole = places.every((id) =>
      parsed.loci.get(id)![0]!.genotype.every((allele) => allele === WILD || copies.has(allele)),
    );
    if (!isWhole) continue;
    named.push(name);
    for (const allele of copies.keys()) shown.delete(allele);
    for (const id of places) loci.delete(id);
  }
  if (named.length === 0) return null;
  const rest = canonicalLabel({ ...parsed, loci }, catalogue);
  return joinWords(rest === NORMAL ? named : [...named, rest], catalogue);
}
