import type { CatalogueTell } from '../catalogue/gather-tells.ts';
import type { Genotype } from '../loci/genotype.ts';
import type { Locus } from '../loci/locus.ts';

export type Sighting = 'seen' | 'not-seen';
/** Tell id -> what was seen. A tell left out is one of which nothing can be said. */
export type Sightings = Readonly<Record<string, Sighting>>;

/** The chance of a sighting on an animal that shows the tell's gene, or does not. */
export const chanceOf = (tell: CatalogueTell, sighting: Sighting, shows: boolean): number => {
  const seen = shows ? tell.pWith : tell.pWithout;
  return sighting === 'seen' ? seen : 1 - seen;
};

/** How far a sighting moves the odds of the gene, whichever way. */
const telling = (tell: CatalogueTell, sighting: Sighting): number =>
  Math.abs(Math.log(chanceOf(tell, sighting, true) / chanceOf(tell, sighting, false)));

/** What one look takes in: a gene's tells within a zone. */
export const oneLook = ({ zone, isMarker, looks }: CatalogueTell): string =>
  `${zone}|${isMarker}|${looks.toSorted().join()}`;

/** A sighting that counts, and those of the same look that do not. */
export interface CountedSighting {
  readonly tell: CatalogueTell;
  readonly sighting: Sighting;
  readonly instead: readonly CatalogueTell[];
}

/**
 * The sightings that count: in one zone the tells of one gene are seen with one look, so of those only the most telling
 * one does.
 */
export function countedSightings(tells: readonly CatalogueTell[], sightings: Sightings): CountedSighting[] {
  const groups = new Map<string, { tell: CatalogueTell; sighting: Sighting }[]>();
  for (const tell of tells) {
    const sighting = sightings[tell.id];
    if (!sighting) continue;
    const key = oneLook(tell);
    groups.set(key, [...(groups.get(key) ?? []), { tell, sighting }]);
  }
  return [...groups.values()].map((group) => {
    const [most, ...others] = group.toSorted(
      (a, b) => telling(b.tell, b.sighting) - telling(a.tell, a.sighting),
    );
    return { ...most!, instead: others.map(({ tell }) => tell) };
  });
}

/** The chance of a marker's sighting on an animal of this genotype. */
export function markerLikelihood(
  counted: readonly CountedSighting[],
  locus: Locus,
  genotype: Genotype,
): number {
  return counted.reduce((p, { tell, sighting }) => {
    if (!tell.isMarker || !tell.looks.some((id) => locus.alleles.some((allele) => allele.id === id)))
      return p;
    return (
      p *
      chanceOf(
        tell,
        sighting,
        genotype.some((allele) => tell.looks.includes(allele)),
      )
    );
  }, 1);
}
