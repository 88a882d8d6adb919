import type { Catalogue } from '../catalogue/catalogue.ts';
import { addDays, type IsoDay } from '../calendar/days.ts';
import type { CatalogueMarker } from '../catalogue/gather-markers.ts';
import { agreementOn } from '../catalogue/trait-markers.ts';
import { phenotypeAt, phenotypeLabel, tabulate, type PhenotypeSpace } from './phenotype-space.ts';
import { zoneOfGene, type Observations } from './observations.ts';

/** A marker that was not looked for yet, and what seeing it, or not, would do. */
export interface NextObservation {
  readonly marker: string;
  /** How much of what is open it is expected to settle, in bits. */
  readonly bits: number;
  readonly pSeen: number;
  /** The gene it is a marker of, "Gravel or Spark", and how sure it would be to show. */
  readonly gene: string;
  readonly pNow: number;
  readonly pIfSeen: number;
  readonly pIfNot: number;
}

export interface ObservationAdvice {
  /** What to look for next, the most informative first. */
  readonly markers: readonly NextObservation[];
  /** The genes in which the two leading candidates differ: what an animal to compare with should show. */
  readonly compare: readonly { readonly phenotype: string; readonly label: string }[];
  /** Where looking now settles little: the day after which to look again. */
  readonly againOn: IsoDay | null;
}

/** A look that is expected to settle less than this is not worth the handling. */
const WORTH_BITS = 0.02;
/** Above this the leader needs no further look. */
const SETTLED = 0.99;
const SHOWN = 3;
/** From the first shed to the second, in a hatchling. Common practice, no source. */
const SECOND_SHED_DAYS = 30;

const entropy = (weights: readonly number[]): number => {
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.reduce((sum, w) => (w > 0 ? sum - (w / total) * Math.log2(w / total) : sum), 0);
};

/**
 * Where to look next: for each marker not yet looked for, the mutual information (Cover & Thomas, Elements of Information
 * Theory, section 2.3) between seeing it and what the animal is, given all that was seen.
 *
 * @param lastShed - the last shed on record, from which the next one is expected
 * @example nextObservations(rank([{ sire: null, sex: 'female', weight: 1, loci: [] }], {}, CATALOGUE).space, {}, CATALOGUE, null) // {"markers": [], "compare": [], "againOn": null}
 */
export function nextObservations(
  space: PhenotypeSpace,
  observations: Observations,
  catalogue: Catalogue,
  lastShed: IsoDay | null,
): ObservationAdvice {
  const { size, after } = space;
  const leading = Array.from({ length: size }, (_, i) => i)
    .filter((i) => after[i]! > 1e-6)
    .toSorted((a, b) => after[b]! - after[a]!);
  if (leading.length < 2) return { markers: [], compare: [], againOn: null };
  const isSettled = after[leading[0]!]! > SETTLED;
  const phenotype = isSettled ? [] : weighMarkers(space, observations, catalogue, leading);
  const compare = isSettled ? [] : differences(space, leading[0]!, leading[1]!, catalogue);
  const isDoubtful = compare.some(({ phenotype: text }) => {
    const locus = catalogue.alleleById(text.split('/')[0]!)!.locus;
    return agreementOn(locus.id) === 'debated';
  });
  const again = !isSettled && lastShed !== null && (phenotype.length === 0 || isDoubtful);
  return {
    markers: phenotype.slice(0, SHOWN),
    compare,
    againOn: again ? addDays(lastShed, SECOND_SHED_DAYS) : null,
  };
}

/** Markers that were not looked for yet, the most informative first. @param cells - places of what is possible, the likeliest first */
function weighMarkers(
  { loci: all, size, after }: PhenotypeSpace,
  known: Observations,
  words: Catalogue,
  cells: readonly number[],
): NextObservation[] {
  const open = entropy(cells.map((i) => after[i]!));
  // A zone that was looked at for a gene would add nothing a second time.
  const inPlay = new Set(all.flatMap(({ phenotypes }) => phenotypes.flatMap((text) => text.split('/'))));
  const isInPlay = (marker: CatalogueMarker): boolean =>
    marker.phenotypes.some(
      (text) => inPlay.has(text) || text.split('/').every((allele) => inPlay.has(allele)),
    );
  const looked = new Set(words.markers.filter(({ id }) => known[id]).map(zoneOfGene));
  return words.markers
    .filter((marker) => !marker.isOfCarriers && isInPlay(marker) && !looked.has(zoneOfGene(marker)))
    .flatMap((marker) => {
      const table = tabulate(all, size, marker, words);
      const first = table?.seen[cells[0]!] ?? 0;
      if (!table || cells.every((i) => Math.abs(table.seen[i]! - first) < 1e-9)) return [];
      const { seen, shows } = table;
      const withIt = cells.map((i) => after[i]! * seen[i]!);
      const without = cells.map((i) => after[i]! * (1 - seen[i]!));
      const pSeen = withIt.reduce((a, b) => a + b, 0);
      const bits = open - pSeen * entropy(withIt) - (1 - pSeen) * entropy(without);
      if (bits < WORTH_BITS) return [];
      const shareOf = (weights: readonly number[]): number => {
        const total = weights.reduce((a, b) => a + b, 0);
        return weights.reduce((sum, weight, i) => (shows[cells[i]!] ? sum + weight : sum), 0) / total;
      };
      return [
        {
          marker: marker.id,
          bits,
          pSeen,
          gene: [...new Set(marker.phenotypes.map((text) => nameOf(text, words)))].join(' or '),
          pNow: shareOf(cells.map((i) => after[i]!)),
          pIfSeen: shareOf(withIt),
          pIfNot: shareOf(without),
        },
      ];
    })
    .toSorted((a, b) => b.bits - a.bits || (a.marker < b.marker ? -1 : 1));
}

function nameOf(phenotype: string, catalogue: Catalogue): string {
  const { locus, allele } = catalogue.alleleById(phenotype.split('/')[0]!)!;
  return phenotype === allele.id ? allele.name : phenotypeLabel({ [locus.id]: phenotype }, catalogue);
}

function differences(
  { loci }: PhenotypeSpace,
  first: number,
  second: number,
  catalogue: Catalogue,
): { phenotype: string; label: string }[] {
  const [a, b] = [phenotypeAt(loci, first), phenotypeAt(loci, second)];
  return loci.flatMap(({ locus: { id } }) => {
    if (a[id] === b[id]) return [];
    return [a[id], b[id]].flatMap((phenotype) =>
      phenotype === undefined ? [] : [{ phenotype, label: phenotypeLabel({ [id]: phenotype }, catalogue) }],
    );
  });
}
