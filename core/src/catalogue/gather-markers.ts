import type { Allele, Locus } from '../loci/locus.ts';
import { CARRIER_MARKERS, TRAIT_MARKERS } from './data/markers.ts';
import { agreementOn, substanceOf, type Agreement, type OwnMarker, type Substance } from './trait-markers.ts';
import type { TraitMarker } from './zones.ts';

/** A marker as the inference reads it: one observation, with all that can cause it. */
export interface CatalogueMarker extends TraitMarker {
  /** Zone and words: the same words in one zone are one marker, whichever gene they mark. */
  readonly id: string;
  /** Allele ids, or `a/b` for a compound or double alone. */
  readonly phenotypes: readonly string[];
  /** Seen on carriers: `phenotypes` are then recessive alleles of which one copy shows it. */
  readonly isOfCarriers: boolean;
  readonly substance: Substance;
  /** The chance that it is seen on an animal with one of `phenotypes`, and on one with none. */
  readonly pWith: number;
  readonly pWithout: number;
  /** Whether the user wrote it, or gave it other chances. */
  readonly isOwn: boolean;
}

/**
 * How often a marker is seen with the gene and without it, by how far breeders agree about the gene. Common practice puts
 * words to this, not numbers: the numbers are defaults of this program, open to correction.
 */
export const CHANCES: Readonly<Record<Agreement, { readonly pWith: number; readonly pWithout: number }>> = {
  settled: { pWith: 0.9, pWithout: 0.05 },
  usual: { pWith: 0.8, pWithout: 0.1 },
  debated: { pWith: 0.65, pWithout: 0.2 },
};

/** Some carriers show such a marker, and so do some that carry nothing. A default of this program. */
export const CARRIER_MARKER_CHANCES = { pWith: 0.4, pWithout: 0.1 } as const;

/** @example markerId({ zone: 'lips', text: 'pale' }) // "lips: pale" */
export const markerId = ({ zone, text }: TraitMarker): string => `${zone}: ${text}`;

/** The built-in markers and the user's own, the same words in one zone as one. */
export function gatherMarkers(
  byAllele: ReadonlyMap<string, { readonly locus: Locus; readonly allele: Allele }>,
  own: readonly OwnMarker[],
): CatalogueMarker[] {
  const found = new Map<string, CatalogueMarker>();
  const add = (
    phenotype: string,
    marker: TraitMarker,
    more: Pick<CatalogueMarker, 'pWith' | 'pWithout' | 'isOfCarriers' | 'isOwn'>,
  ) => {
    const { zone, text } = marker;
    const id = markerId(marker) + (more.isOfCarriers ? ' (carriers)' : '');
    const known = found.get(id);
    found.set(id, {
      ...(known && !more.isOwn ? known : { id, zone, text, substance: substanceOf(marker), ...more }),
      phenotypes: [...new Set([...(known?.phenotypes ?? []), phenotype])],
    });
  };
  for (const [phenotype, markers] of Object.entries(TRAIT_MARKERS)) {
    const locus = byAllele.get(phenotype.split('/')[0]!)?.locus;
    if (!locus) continue;
    for (const marker of markers)
      add(phenotype, marker, { ...CHANCES[agreementOn(locus.id)], isOfCarriers: false, isOwn: false });
  }
  for (const [allele, markers] of Object.entries(CARRIER_MARKERS))
    for (const marker of markers)
      add(allele, marker, { ...CARRIER_MARKER_CHANCES, isOfCarriers: true, isOwn: false });
  for (const { phenotype, pWith, pWithout, ...marker } of own)
    if (byAllele.has(phenotype.split('/')[0]!))
      add(phenotype, marker, { pWith, pWithout, isOfCarriers: false, isOwn: true });
  return [...found.values()];
}
