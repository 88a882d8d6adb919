import { canonical } from '../loci/genotype.ts';
import type { Expression } from '../loci/locus.ts';
import type { CatalogueAdditions } from './catalogue.ts';
import type { OwnMarker } from './trait-markers.ts';

/** One addition or correction of a user, as it is stored. */
export type CatalogueEntry =
  /** A gene, or a line of one, that the catalogue does not have: a locus with one allele. */
  | {
      readonly kind: 'locus';
      readonly name: string;
      readonly expression: Expression;
      /** The name of the animal with two copies. */
      readonly double?: string | null | undefined;
      /** Present where it lies on the sex chromosomes. */
      readonly recombination?: number | null | undefined;
      /** It looks different, and whether it is inherited is not known. */
      readonly isUnproven?: boolean | undefined;
    }
  /** A further allele of a locus. */
  | {
      readonly kind: 'allele';
      readonly locus: string;
      readonly name: string;
      readonly expression: Expression;
      readonly double?: string | null | undefined;
    }
  /** A word that stands for genes. */
  | { readonly kind: 'alias'; readonly word: string; readonly genes: string }
  /** How an allele of the built-in catalogue shows, seen otherwise. */
  | {
      readonly kind: 'correction';
      readonly allele: string;
      readonly expression: Expression;
      readonly double?: string | null | undefined;
    }
  /** Another value for the recombination of a sex-linked locus. */
  | { readonly kind: 'recombination'; readonly locus: string; readonly recombination: number }
  /** The name of two alleles of a locus together. */
  | { readonly kind: 'compound'; readonly alleles: readonly [string, string]; readonly name: string }
  /** The chance that an egg with these two alleles hatches; `+` is the wild type. */
  | { readonly kind: 'viability'; readonly alleles: readonly [string, string]; readonly p: number }
  /** An allele belongs to another locus than the catalogue says. */
  | { readonly kind: 'allelism'; readonly allele: string; readonly locus: string }
  /** How often an animal of which nobody said so carries a recessive allele. */
  | { readonly kind: 'frequency'; readonly allele: string; readonly frequency: number }
  /** The loci that labels name first, in this order. */
  | { readonly kind: 'label-order'; readonly loci: readonly string[] }
  /** A marker of the user's own, or other chances for a marker that the catalogue has. */
  | ({ readonly kind: 'marker' } & OwnMarker);

/** The version of the built-in catalogue whose readings hold: kept by the collection, and no entry that somebody adds. */
export interface AsOfEntry {
  readonly kind: 'as-of';
  readonly version: string;
}

/** All that makes a collection's catalogue of the built-in one. */
export type CatalogueChange = CatalogueEntry | AsOfEntry;

/** The kinds of entries that say something of genes and loci that the catalogue has. */
const GENE_RULES = ['compound', 'viability', 'allelism', 'frequency', 'label-order'] as const;
export type GeneRuleEntry = Extract<CatalogueEntry, { kind: (typeof GENE_RULES)[number] }>;

/** @example isGeneRule({ kind: 'alias', word: 'Mystery', genes: 'Pastel' }) // false */
export const isGeneRule = (entry: CatalogueEntry): entry is GeneRuleEntry =>
  GENE_RULES.some((kind) => kind === entry.kind);

/**
 * The allele id of a name of the user's own: apart from all built-in ones.
 *
 * @example ownId('Night Glow') // "own-night-glow"
 */
export function ownId(name: string): string {
  const slug = name
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  return `own-${slug}`;
}

/**
 * A user's entries as additions to the built-in catalogue.
 *
 * @example toAdditions([{ kind: 'alias', word: 'Mystery', genes: 'Pastel Clown' }]).aliases // [{"kind": "alias", "word": "Mystery", "genes": "Pastel Clown"}]
 */
export function toAdditions(entries: readonly CatalogueChange[]): CatalogueAdditions {
  const of = <K extends CatalogueChange['kind']>(kind: K) =>
    entries.filter((entry): entry is Extract<CatalogueChange, { kind: K }> => entry.kind === kind);
  const [asOf] = of('as-of');
  const allele = ({
    name,
    expression,
    double,
  }: {
    name: string;
    expression: Expression;
    double?: string | null | undefined;
  }) => ({
    id: ownId(name),
    name,
    expression,
    ...(double ? { double } : {}),
  });
  return {
    loci: of('locus').map((entry) => ({
      id: ownId(entry.name),
      name: entry.name,
      alleles: [allele(entry)],
      compounds: [],
      ...(entry.isUnproven ? { isUnproven: true as const } : {}),
      ...(entry.recombination == null ? {} : { sexLinked: { recombination: entry.recombination } }),
    })),
    alleles: of('allele').map((entry) => ({ locus: entry.locus, allele: allele(entry) })),
    aliases: of('alias'),
    corrections: of('correction').map(({ allele: id, expression, double }) => ({
      allele: id,
      expression,
      ...(double ? { double } : {}),
    })),
    recombination: of('recombination'),
    compounds: of('compound').map(({ alleles, name }) => ({ alleles: canonical(...alleles), name })),
    viability: of('viability').map(({ alleles, p }) => ({ genotype: canonical(...alleles), p })),
    allelism: of('allelism'),
    frequencies: of('frequency'),
    labelOrder: of('label-order').at(-1)?.loci ?? [],
    markers: of('marker'),
    ...(asOf ? { asOf: asOf.version } : {}),
  };
}
