import { canonicalLabel, parseGenes, type Catalogue } from '@karyotome/core';

/** What was written of an animal's genes, as the one canonical label. */
export const canonicalOf = (genes: string, catalogue: Catalogue): string =>
  canonicalLabel(parseGenes(genes, catalogue), catalogue);
