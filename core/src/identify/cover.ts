import type { Catalogue } from '../catalogue/catalogue.ts';
import type { CatalogueTell } from '../catalogue/gather-tells.ts';
import { PATTERN_REDUCERS } from '../catalogue/tells.ts';
import { hidesOf } from '../loci/hides.ts';
import type { Locus } from '../loci/locus.ts';

/** Patches and other reducers cover a tell on a part of the animal only. A default of this program. */
const HALF = 0.5;

/**
 * How much of a tell another gene covers, where it shows as `looks`: 0 nothing, 1 all. What is covered looks as if the
 * tell's own gene were not there, so that not seeing it says nothing.
 *
 * Common practice, no source: white covers nearly everything, pied the pattern where it is white, banana and albino what is
 * made of black, and two pattern reducers each other's detail.
 */
export function coverOn(catalogue: Catalogue, locus: Locus, looks: string, tell: CatalogueTell): number {
  const hides = hidesOf(locus, looks);
  if (hides === 'everything') return 1;
  if (hides === 'black' && tell.substance === 'black') return 1;
  if (hides === 'pattern' && tell.substance !== 'colour') return HALF;
  const reduces = (text: string): boolean => text.split('/').some((allele) => PATTERN_REDUCERS.has(allele));
  const isOfReducer = tell.looks.some(
    (text) => reduces(text) && catalogue.alleleById(text.split('/')[0]!) !== undefined,
  );
  return looks !== '' && reduces(looks) && isOfReducer && tell.substance !== 'colour' ? HALF : 0;
}

/** Whether a tell speaks of an animal that shows `looks` at one locus. */
export function showsTell(tell: CatalogueTell, looks: string): boolean {
  if (looks === '' || tell.isMarker) return false;
  return tell.looks.some((wanted) =>
    wanted.includes('/') ? wanted === looks : looks.split('/').includes(wanted),
  );
}
