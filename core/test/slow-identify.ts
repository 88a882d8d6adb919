import type { Catalogue } from '../src/catalogue/catalogue.ts';
import { PATTERN_REDUCERS } from '../src/catalogue/trait-markers.ts';
import type { Hypothesis } from '../src/identify/phenotype-space.ts';
import type { Observations } from '../src/identify/observations.ts';
import { appearance, type Genotype } from '../src/loci/genotype.ts';

/**
 * The slow judge of the ranking: walks through every genotype of every locus under every hypothesis, and applies the rules
 * of docs/science.md, section 11, to each animal by itself, word for word.
 *
 * @returns what shows ("locus=phenotype", sorted) -> probability
 */
export function slowRanking(
  hypotheses: readonly Hypothesis[],
  observations: Observations,
  catalogue: Catalogue,
): Map<string, number> {
  const found = new Map<string, number>();
  let total = 0;
  for (const { weight, loci } of hypotheses) {
    const walk = (at: number, p: number, animal: ReadonlyMap<string, Genotype>): void => {
      if (p === 0) return;
      if (at === loci.length) {
        const likelihood = p * chanceOfAll(animal, observations, catalogue);
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
  observations: Observations,
  catalogue: Catalogue,
): number {
  const shown = [...animal].map(([id, genotype]) => ({
    locus: catalogue.locusById(id)!,
    phenotype: appearance(catalogue.locusById(id)!, genotype),
  }));
  const alleles = new Set([...animal.values()].flat());
  // One look takes in a gene's markers of a zone: only the most informative of those that were marked counts.
  const phenotype = new Map<string, { id: string; weight: number }>();
  for (const marker of catalogue.markers) {
    const observation = observations[marker.id];
    if (!observation) continue;
    const [yes, no] =
      observation === 'seen' ? [marker.pWith, marker.pWithout] : [1 - marker.pWith, 1 - marker.pWithout];
    const weight = Math.abs(Math.log(yes / no));
    const key = `${marker.zone}/${[...marker.phenotypes].sort().join('/')}/${marker.isOfCarriers}`;
    if (weight > (phenotype.get(key)?.weight ?? -1)) phenotype.set(key, { id: marker.id, weight });
  }
  let likelihood = 1;
  for (const { id } of phenotype.values()) {
    const marker = catalogue.markers.find((one) => one.id === id)!;
    const isOf = (text: string): boolean =>
      text !== '' &&
      marker.phenotypes.some((wanted) =>
        wanted.includes('/') ? wanted === text : text.split('/').includes(wanted),
      );
    const has = marker.isOfCarriers
      ? marker.phenotypes.some((allele) => alleles.has(allele))
      : shown.some(({ phenotype: text }) => isOf(text));
    let open = 1;
    if (!marker.isOfCarriers) {
      for (const { locus, phenotype: text } of shown) {
        if (text === '' || isOf(text)) continue;
        const isDouble = text.includes('/');
        const isWhite = isDouble && (locus.doublesThatHide ? locus.doublesThatHide.includes(text) : true);
        const hides = isWhite && locus.doublesHide ? locus.doublesHide : locus.hides;
        const reduces = (one: string): boolean =>
          one.split('/').some((allele) => PATTERN_REDUCERS.has(allele));
        if (hides === 'everything' || (hides === 'black' && marker.substance === 'black')) open = 0;
        else if (
          marker.substance !== 'colour' &&
          (hides === 'pattern' || (reduces(text) && marker.phenotypes.some(reduces)))
        )
          open *= 0.5;
      }
    }
    const seen = has ? open * marker.pWith + (1 - open) * marker.pWithout : marker.pWithout;
    likelihood *= observations[id] === 'seen' ? seen : 1 - seen;
  }
  return likelihood;
}
