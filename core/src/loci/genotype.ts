import { isRecessive, WILD, type Locus } from './locus.ts';

/** Two allele ids. Unordered genotypes are kept canonical: `+` first, then code-unit order. */
export type Genotype = readonly [string, string];

export interface WeightedGenotype {
  readonly genotype: Genotype;
  /** A probability; over the genotypes of one animal at one locus they add up to 1. */
  readonly p: number;
}

/** Code-unit order of allele ids with wild type first: never the machine's locale. */
export function compareAlleles(a: string, b: string): number {
  if (a === b) return 0;
  if (a === WILD) return -1;
  if (b === WILD) return 1;
  return a < b ? -1 : 1;
}

/**
 * The one spelling of an unordered genotype.
 *
 * @example canonical('pied', '+') // ["+","pied"]
 */
export function canonical(a: string, b: string): Genotype {
  return compareAlleles(a, b) <= 0 ? [a, b] : [b, a];
}

export function genotypeKey(genotype: Genotype): string {
  return `${genotype[0]}/${genotype[1]}`;
}

/**
 * Every unordered genotype of a locus with these alleles (wild type added), in canonical order.
 *
 * @example allGenotypes(['pied']).length // 3
 */
export function allGenotypes(alleleIds: readonly string[]): Genotype[] {
  const alleles = [WILD, ...alleleIds.toSorted(compareAlleles)];
  return alleles.flatMap((a, i) => alleles.slice(i).map((b): Genotype => [a, b]));
}

/** How many copies of an allele the genotype holds: 0, 1 or 2. */
export function copies(genotype: Genotype, alleleId: string): number {
  return (genotype[0] === alleleId ? 1 : 0) + (genotype[1] === alleleId ? 1 : 0);
}

/**
 * The chance that an egg of this genotype hatches, beside one that nothing is against: 1 unless the locus says otherwise.
 *
 * @example viabilityOf(CATALOGUE.locusById('champagne'), ['champagne', 'champagne']) // 0
 */
export function viabilityOf(locus: Pick<Locus, 'viability'>, genotype: Genotype): number {
  if (!locus.viability) return 1;
  const key = genotypeKey(canonical(genotype[0], genotype[1]));
  return locus.viability.find((entry) => genotypeKey(entry.genotype) === key)?.p ?? 1;
}

/**
 * The cautions that hold for an animal of this genotype.
 *
 * @example welfareNotes(CATALOGUE.locusById('clown'), ['clown', 'clown']) // []
 */
export function welfareNotes(locus: Locus, genotype: Genotype): string[] {
  return (locus.welfare ?? [])
    .filter((note) => genotype.filter((allele) => note.alleles.includes(allele)).length >= note.copies)
    .map((note) => note.text);
}

/**
 * What the eye can tell of a genotype: two genotypes look the same exactly when this is the same text.
 *
 * A recessive allele beside wild type (or beside an allele of another expression) does not show; any two recessive
 * alleles of one locus show together. A dominant allele looks the same in one copy and in two.
 *
 * @returns the visible alleles joined by `/`, or an empty text where nothing shows
 * @example appearance(CATALOGUE.locusById('clown'), ['+', 'clown']) // ""
 */
export function appearance(locus: Locus, genotype: Genotype): string {
  const [a, b] = canonical(genotype[0], genotype[1]);
  const recessiveA = isRecessive(locus, a);
  const recessiveB = isRecessive(locus, b);
  if (a !== WILD && recessiveA && recessiveB) return `${a}/${b}`;
  const visible = [a, b].filter((allele) => allele !== WILD && !isRecessive(locus, allele));
  if (visible.length === 2 && visible[0] === visible[1]) {
    const allele = locus.alleles.find((candidate) => candidate.id === visible[0]);
    if (allele?.expression === 'dominant') return visible[0]!;
  }
  return visible.join('/');
}
