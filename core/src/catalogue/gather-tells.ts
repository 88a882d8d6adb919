import type { Allele, Locus } from '../loci/locus.ts';
import type { OwnTell } from './entries.ts';
import {
  agreementOn,
  MARKERS,
  substanceOf,
  TELLS,
  type Agreement,
  type Substance,
  type Tell,
} from './tells.ts';

/** A tell as the inference reads it: one observation, with all that can cause it. */
export interface CatalogueTell extends Tell {
  /** Zone and words: the same words in one zone are one tell, whichever gene they speak of. */
  readonly id: string;
  /** Allele ids, or `a/b` for a compound or double alone. */
  readonly looks: readonly string[];
  /** A hint of carriers: `looks` are then recessive alleles of which one copy shows it. */
  readonly isMarker: boolean;
  readonly substance: Substance;
  /** The chance that it is seen on an animal with one of `looks`, and on one with none. */
  readonly pWith: number;
  readonly pWithout: number;
  /** Whether the user wrote it, or gave it other chances. */
  readonly isOwn: boolean;
}

/**
 * How often a tell is seen with the gene and without it, by how far breeders agree about the gene. Common practice puts
 * words to this, not numbers: the numbers are defaults of this program, open to correction.
 */
export const CHANCES: Readonly<Record<Agreement, { readonly pWith: number; readonly pWithout: number }>> = {
  settled: { pWith: 0.9, pWithout: 0.05 },
  usual: { pWith: 0.8, pWithout: 0.1 },
  debated: { pWith: 0.65, pWithout: 0.2 },
};

/** Some carriers show a marker, and so do some that carry nothing. A default of this program. */
export const MARKER_CHANCES = { pWith: 0.4, pWithout: 0.1 } as const;

export const tellId = ({ zone, text }: Tell): string => `${zone}: ${text}`;

/** The built-in tells and the user's own, the same words in one zone as one. */
export function gatherTells(
  byAllele: ReadonlyMap<string, { readonly locus: Locus; readonly allele: Allele }>,
  own: readonly OwnTell[],
): CatalogueTell[] {
  const found = new Map<string, CatalogueTell>();
  const add = (
    looks: string,
    tell: Tell,
    more: Pick<CatalogueTell, 'pWith' | 'pWithout' | 'isMarker' | 'isOwn'>,
  ) => {
    const { zone, text } = tell;
    const id = tellId(tell) + (more.isMarker ? ' (carriers)' : '');
    const known = found.get(id);
    found.set(id, {
      ...(known && !more.isOwn ? known : { id, zone, text, substance: substanceOf(tell), ...more }),
      looks: [...new Set([...(known?.looks ?? []), looks])],
    });
  };
  for (const [looks, tells] of Object.entries(TELLS)) {
    const locus = byAllele.get(looks.split('/')[0]!)?.locus;
    if (!locus) continue;
    for (const tell of tells)
      add(looks, tell, { ...CHANCES[agreementOn(locus.id)], isMarker: false, isOwn: false });
  }
  for (const [allele, tells] of Object.entries(MARKERS))
    for (const tell of tells) add(allele, tell, { ...MARKER_CHANCES, isMarker: true, isOwn: false });
  for (const { looks, pWith, pWithout, ...tell } of own)
    if (byAllele.has(looks.split('/')[0]!))
      add(looks, tell, { pWith, pWithout, isMarker: false, isOwn: true });
  return [...found.values()];
}
