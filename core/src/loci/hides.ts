import type { Hides, Locus } from './locus.ts';

/** What one locus hides where it shows as `phenotype`. */
export function hidesOf(locus: Locus, phenotype: string): Hides | undefined {
  if (phenotype === '') return undefined;
  const isDouble = phenotype.includes('/');
  const hides = isDouble && (locus.doublesThatHide?.includes(phenotype) ?? true);
  return hides ? (locus.doublesHide ?? locus.hides) : locus.hides;
}
