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
  /** A marker of the user's own, or other chances for a marker that the catalogue has. */
  | ({ readonly kind: 'marker' } & OwnMarker);

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
export function toAdditions(entries: readonly CatalogueEntry[]): CatalogueAdditions {
  const of = <K extends CatalogueEntry['kind']>(kind: K) =>
    entries.filter((entry): entry is Extract<CatalogueEntry, { kind: K }> => entry.kind === kind);
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
    markers: of('marker'),
  };
}
