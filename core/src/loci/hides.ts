import type { Hides, Locus } from './locus.ts';

/** What one locus hides where it shows as `looks`. */
export function hidesOf(locus: Locus, looks: string): Hides | undefined {
  if (looks === '') return undefined;
  const isDouble = looks.includes('/');
  const hides = isDouble && (locus.doublesThatHide?.includes(looks) ?? true);
  return hides ? (locus.doublesHide ?? locus.hides) : locus.hides;
}
