import type { CatalogueView } from '@karyotome/contract';
import type { GeneRuleEntry } from '@karyotome/core';

/** What is said of genes that the catalogue has, and its dialog. */
export interface GeneRule {
  readonly kind: GeneRuleEntry['kind'];
  readonly locus?: string;
  readonly allele?: string;
}

/** Where an entry of the collection's own belongs. */
export function placeOf(
  { entry }: CatalogueView['entries'][number],
  locusOf: (allele: string) => string | undefined,
): { locus?: string; allele?: string } {
  if (entry.kind === 'compound' || entry.kind === 'viability') {
    const locus = entry.alleles.map(locusOf).find((id) => id !== undefined);
    return locus === undefined ? {} : { locus };
  }
  if ('allele' in entry) return { allele: entry.allele };
  return 'locus' in entry ? { locus: entry.locus } : {};
}
