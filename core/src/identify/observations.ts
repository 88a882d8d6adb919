import type { CatalogueMarker } from '../catalogue/gather-markers.ts';
import type { Genotype } from '../loci/genotype.ts';
import type { Locus } from '../loci/locus.ts';

export type Observation = 'seen' | 'not-seen';
/** Marker id -> what was seen. A marker left out is one of which nothing can be said. */
export type Observations = Readonly<Record<string, Observation>>;

/** The chance of an observation on an animal that shows the marker's gene, or does not. */
export const chanceOf = (marker: CatalogueMarker, observation: Observation, shows: boolean): number => {
  const seen = shows ? marker.pWith : marker.pWithout;
  return observation === 'seen' ? seen : 1 - seen;
};

/** Weight of evidence of an observation (absolute log likelihood ratio), nats. */
const weightOfEvidence = (marker: CatalogueMarker, observation: Observation): number =>
  Math.abs(Math.log(chanceOf(marker, observation, true) / chanceOf(marker, observation, false)));

/** Markers that are judged with one glance: those of one gene within a zone. */
export const zoneOfGene = ({ zone, isOfCarriers, phenotypes }: CatalogueMarker): string =>
  `${zone}|${isOfCarriers}|${phenotypes.toSorted().join()}`;

/** An observation that counts, and those of the same gene and zone that do not. */
export interface CountedObservation {
  readonly marker: CatalogueMarker;
  readonly observation: Observation;
  readonly instead: readonly CatalogueMarker[];
}

/**
 * The observations that count: in one zone the markers of one gene are seen with one look, so of those only the most informative
 * one does.
 */
export function countedObservations(
  markers: readonly CatalogueMarker[],
  observations: Observations,
): CountedObservation[] {
  const groups = new Map<string, { marker: CatalogueMarker; observation: Observation }[]>();
  for (const marker of markers) {
    const observation = observations[marker.id];
    if (!observation) continue;
    const key = zoneOfGene(marker);
    groups.set(key, [...(groups.get(key) ?? []), { marker, observation }]);
  }
  return [...groups.values()].map((group) => {
    const [most, ...others] = group.toSorted(
      (a, b) => weightOfEvidence(b.marker, b.observation) - weightOfEvidence(a.marker, a.observation),
    );
    return { ...most!, instead: others.map(({ marker }) => marker) };
  });
}

/** The likelihood of what was seen of carriers’ markers, on an animal of this genotype. */
export function carrierLikelihood(
  counted: readonly CountedObservation[],
  locus: Locus,
  genotype: Genotype,
): number {
  return counted.reduce((p, { marker, observation }) => {
    if (
      !marker.isOfCarriers ||
      !marker.phenotypes.some((id) => locus.alleles.some((allele) => allele.id === id))
    )
      return p;
    return (
      p *
      chanceOf(
        marker,
        observation,
        genotype.some((allele) => marker.phenotypes.includes(allele)),
      )
    );
  }, 1);
}
