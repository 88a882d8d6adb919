import type { Catalogue } from '../catalogue/catalogue.ts';
import type { CatalogueMarker } from '../catalogue/gather-markers.ts';
import { PATTERN_REDUCERS } from '../catalogue/trait-markers.ts';
import { hidesOf } from '../loci/hides.ts';
import type { Locus } from '../loci/locus.ts';

/** Patches and other reducers cover a marker on a part of the animal only. A default of this program. */
const HALF = 0.5;

/**
 * How much of a marker another gene covers, where it shows as `phenotype`: 0 nothing, 1 all. What is covered looks as if the
 * marker's own gene were not there, so that not seeing it says nothing.
 *
 * Common practice, no source: white covers nearly everything, pied the pattern where it is white, banana and albino what is
 * made of black, and two pattern reducers each other's detail.
 *
 * @example coverOn(CATALOGUE, CATALOGUE.locusById('clown'), '', CATALOGUE.markers.find(({ phenotypes }) => phenotypes.includes('pastel'))) // 0
 */
export function coverOn(
  catalogue: Catalogue,
  locus: Locus,
  phenotype: string,
  marker: CatalogueMarker,
): number {
  const hides = hidesOf(locus, phenotype);
  if (hides === 'everything') return 1;
  if (hides === 'black' && marker.substance === 'black') return 1;
  if (hides === 'pattern' && marker.substance !== 'colour') return HALF;
  const reduces = (text: string): boolean => text.split('/').some((allele) => PATTERN_REDUCERS.has(allele));
  const isOfReducer = marker.phenotypes.some(
    (text) => reduces(text) && catalogue.alleleById(text.split('/')[0]!) !== undefined,
  );
  return phenotype !== '' && reduces(phenotype) && isOfReducer && marker.substance !== 'colour' ? HALF : 0;
}

/**
 * Whether a marker is expected on an animal that shows `phenotype` at one locus.
 *
 * @example showsMarker({ phenotypes: ['pastel'] }, 'pastel') // true
 */
export function showsMarker(marker: CatalogueMarker, phenotype: string): boolean {
  if (phenotype === '' || marker.isOfCarriers) return false;
  return marker.phenotypes.some((wanted) =>
    wanted.includes('/') ? wanted === phenotype : phenotype.split('/').includes(wanted),
  );
}
