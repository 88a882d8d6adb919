import type { Catalogue } from '../src/catalogue/catalogue.ts';
import { PATTERN_REDUCERS } from '../src/catalogue/tells.ts';
import type { Hypothesis } from '../src/identify/looks-space.ts';
import type { Sightings } from '../src/identify/sightings.ts';
import { appearance, type Genotype } from '../src/loci/genotype.ts';

/**
 * The slow judge of the ranking: walks through every genotype of every locus under every hypothesis, and applies the rules
 * of docs/science.md, section 11, to each animal by itself, word for word.
 *
 * @returns what shows ("locus=looks", sorted) -> probability
 */
export function slowRanking(
  hypotheses: readonly Hypothesis[],
  sightings: Sightings,
  catalogue: Catalogue,
): Map<string, number> {
  const found = new Map<string, number>();
  let total = 0;
  for (const { weight, loci } of hypotheses) {
    const walk = (at: number, p: number, animal: ReadonlyMap<string, Genotype>): void => {
      if (p === 0) return;
      if (at === loci.length) {
        const likelihood = p * chanceOfAll(animal, sightings, catalogue);
        const key = [...animal]
          .map(([id, genotype]) => `${id}=${appearance(catalogue.locusById(id)!, genotype)}`)
          .filter((one) => !one.endsWith('='))
          .toSorted()
          .join(' ');
        found.set(key, (found.get(key) ?? 0) + likelihood);
        total += likelihood;
        return;
      }
      const { locus, genotypes } = loci[at]!;
      for (const one of genotypes) walk(at + 1, p * one.p, new Map([...animal, [locus, one.genotype]]));
    };
    walk(0, weight, new Map());
  }
  return new Map([...found].map(([key, p]) => [key, p / total]));
}

function chanceOfAll(
  animal: ReadonlyMap<string, Genotype>,
  sightings: Sightings,
  catalogue: Catalogue,
): number {
  const shown = [...animal].map(([id, genotype]) => ({
    locus: catalogue.locusById(id)!,
    looks: appearance(catalogue.locusById(id)!, genotype),
  }));
  const alleles = new Set([...animal.values()].flat());
  // One look takes in a gene's tells of a zone: only the most telling of those that were marked counts.
  const looks = new Map<string, { id: string; weight: number }>();
  for (const tell of catalogue.tells) {
    const sighting = sightings[tell.id];
    if (!sighting) continue;
    const [yes, no] = sighting === 'seen' ? [tell.pWith, tell.pWithout] : [1 - tell.pWith, 1 - tell.pWithout];
    const weight = Math.abs(Math.log(yes / no));
    const key = `${tell.zone}/${[...tell.looks].sort().join('/')}/${tell.isMarker}`;
    if (weight > (looks.get(key)?.weight ?? -1)) looks.set(key, { id: tell.id, weight });
  }
  let likelihood = 1;
  for (const { id } of looks.values()) {
    const tell = catalogue.tells.find((one) => one.id === id)!;
    const isOf = (text: string): boolean =>
      text !== '' &&
      tell.looks.some((wanted) =>
        wanted.includes('/') ? wanted === text : text.split('/').includes(wanted),
      );
    const has = tell.isMarker
      ? tell.looks.some((allele) => alleles.has(allele))
      : shown.some(({ looks: text }) => isOf(text));
    let open = 1;
    if (!tell.isMarker) {
      for (const { locus, looks: text } of shown) {
        if (text === '' || isOf(text)) continue;
        const isDouble = text.includes('/');
        const isWhite = isDouble && (locus.doublesThatHide ? locus.doublesThatHide.includes(text) : true);
        const hides = isWhite && locus.doublesHide ? locus.doublesHide : locus.hides;
        const reduces = (one: string): boolean =>
          one.split('/').some((allele) => PATTERN_REDUCERS.has(allele));
        if (hides === 'everything' || (hides === 'black' && tell.substance === 'black')) open = 0;
        else if (
          tell.substance !== 'colour' &&
          (hides === 'pattern' || (reduces(text) && tell.looks.some(reduces)))
        )
          open *= 0.5;
      }
    }
    const seen = has ? open * tell.pWith + (1 - open) * tell.pWithout : tell.pWithout;
    likelihood *= sightings[id] === 'seen' ? seen : 1 - seen;
  }
  return likelihood;
}
