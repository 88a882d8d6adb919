import type { Genotype } from '../loci/genotype.ts';
import type { Catalogue } from '../catalogue/catalogue.ts';
import { CostError } from '../errors.ts';
import { appearance } from '../loci/genotype.ts';
import { showsMarker } from './cover.ts';
import {
  phenotypeAt,
  phenotypeLabel,
  phenotypesOf,
  mix,
  NEGLIGIBLE,
  spread,
  tabulate,
  totalOf,
  WILD_ONLY,
  type PhenotypeSpace,
  type Hypothesis,
} from './phenotype-space.ts';
import {
  chanceOf,
  countedObservations,
  carrierLikelihood,
  type CountedObservation,
  type Observations,
} from './observations.ts';

/** One thing the animal can be, by eye. */
export interface Candidate {
  readonly label: string;
  /** Locus id -> what shows there, where something does. */
  readonly phenotype: Readonly<Record<string, string>>;
  /** Before it was looked at, and with the markers. */
  readonly pBefore: number;
  readonly p: number;
}

/** How one gene stands: whether it shows. */
export interface GeneOdds {
  readonly locus: string;
  readonly phenotype: string;
  readonly label: string;
  readonly pBefore: number;
  readonly p: number;
}

/** What one zone's look at one gene adds. */
export interface MarkerWeight {
  readonly marker: string;
  /** How many times likelier the observation is where the gene shows uncovered than where it does not. */
  readonly factor: number;
  /** Another marker of the gene in the same zone counts instead. */
  readonly countedWith: string | null;
}

export interface Ranking {
  /** Likeliest first. */
  readonly candidates: readonly Candidate[];
  /** How many more there are. */
  readonly rarer: number;
  /** Phenotypes no likelier than this at one locus were left out, so that the rest could be weighed; 0 where none were. */
  readonly least: number;
  readonly genes: readonly GeneOdds[];
  readonly markers: readonly MarkerWeight[];
  /** Carried unseen, where a carriers’ marker was looked for: allele id -> odds before and after. */
  readonly carried: readonly { readonly allele: string; readonly pBefore: number; readonly p: number }[];
  /** Markers seen of genes that the records leave no room for. */
  readonly outside: readonly string[];
  /** Who the sire is, where that is open, given all this: id -> probability. */
  readonly sires: Readonly<Record<string, number>>;
  /** The probability that it is female, given all this. */
  readonly pFemale: number;
}

/** Combinations that are walked through at most. */
const LARGEST = 2_000_000;
/** Candidates that are worded. */
const SHOWN = 24;

/**
 * What an animal can be, given its pedigree and what was seen of it: the engine's distribution times the chance of each
 * observation. Observations are independent of one another given what shows, but for those that one look takes in.
 *
 * @throws CostError where what can show has too many combinations
 * @example rank([{ sire: null, sex: 'female', weight: 1, loci: [] }], {}, CATALOGUE).ranking.pFemale // 1
 */
export function rank(
  hypotheses: readonly Hypothesis[],
  observations: Observations,
  catalogue: Catalogue,
): { ranking: Ranking; space: PhenotypeSpace } {
  const { loci, size, least } = fittingPhenotypes(hypotheses, catalogue);
  if (size > LARGEST) throw new CostError(size, LARGEST);
  const counted = countedObservations(catalogue.markers, observations);
  const marked = counted.some(({ marker }) => marker.isOfCarriers);
  const likelihood = new Float64Array(size).fill(1);
  for (const { marker, observation } of counted) {
    if (marker.isOfCarriers) continue;
    const table = tabulate(loci, size, marker, catalogue);
    if (!table) continue;
    for (let i = 0; i < size; i++)
      likelihood[i]! *= observation === 'seen' ? table.seen[i]! : 1 - table.seen[i]!;
  }
  // A locus at which nothing can show is no part of the box, but a carriers' marker tells sires and sexes apart by it.
  const unseenLikelihood = (hypothesis: Hypothesis): number =>
    hypothesis.loci
      .filter(({ locus }) => !loci.some((one) => one.locus.id === locus))
      .reduce((product, { locus, genotypes }) => {
        const rules = catalogue.locusById(locus)!;
        const chance = (genotype: Genotype): number => carrierLikelihood(counted, rules, genotype);
        return product * genotypes.reduce((sum, { genotype, p }) => sum + p * chance(genotype), 0);
      }, 1);
  const priors = hypotheses.map((hypothesis) => spread(loci, hypothesis, () => 1));
  const byMarkers = marked
    ? hypotheses.map((hypothesis) =>
        spread(
          loci,
          { ...hypothesis, weight: hypothesis.weight * unseenLikelihood(hypothesis) },
          (locus, genotype) => carrierLikelihood(counted, locus, genotype),
        ),
      )
    : priors;
  const posteriors = byMarkers.map((table) => table.map((p, i) => p * likelihood[i]!));
  const before = mix(priors, size);
  const after = mix(posteriors, size);
  const space: PhenotypeSpace = { loci, size, before, after };
  const candidates = rankCandidates(space, catalogue);
  return {
    space,
    ranking: {
      candidates: candidates.slice(0, SHOWN),
      rarer: Math.max(0, candidates.length - SHOWN),
      least,
      genes: geneOdds(space, catalogue),
      markers: counted.flatMap(({ marker, observation, instead }) => {
        const factor = chanceOf(marker, observation, true) / chanceOf(marker, observation, false);
        return [
          { marker: marker.id, factor, countedWith: null },
          ...instead.map(({ id }) => ({ marker: id, factor: 1, countedWith: marker.id })),
        ];
      }),
      carried: marked ? carriedOdds(hypotheses, counted, catalogue) : [],
      outside: outsideOf(loci, hypotheses, counted),
      ...whoAndWhich(hypotheses, posteriors.map(totalOf)),
    },
  };
}

/** More combinations than this make a touch wait: the least likely phenotypes then go, as many as need be. */
const COMFORTABLE = 20_000;
const FAINT = [1e-6, 1e-5, 1e-4, 1e-3, 1e-2];

function fittingPhenotypes(
  hypotheses: readonly Hypothesis[],
  catalogue: Catalogue,
): { loci: PhenotypeSpace['loci']; size: number; least: number } {
  const sizeOf = (loci: PhenotypeSpace['loci']): number =>
    loci.reduce((product, { phenotypes }) => product * phenotypes.length, 1);
  let loci = phenotypesOf(hypotheses, catalogue);
  let least = 0;
  for (const faint of FAINT) {
    if (sizeOf(loci) <= COMFORTABLE) break;
    const fewer = phenotypesOf(hypotheses, catalogue, faint);
    if (sizeOf(fewer) < sizeOf(loci)) least = faint;
    loci = fewer;
  }
  return { loci, size: sizeOf(loci), least };
}

function rankCandidates({ loci, size, before, after }: PhenotypeSpace, catalogue: Catalogue): Candidate[] {
  const order = Array.from({ length: size }, (_, i) => i)
    .filter((i) => before[i]! > NEGLIGIBLE)
    .toSorted((a, b) => after[b]! - after[a]! || before[b]! - before[a]! || a - b);
  return order.map((cell, place) => {
    // Only what is shown needs its words.
    const phenotype = place < SHOWN ? phenotypeAt(loci, cell) : {};
    return {
      phenotype,
      label: place < SHOWN ? phenotypeLabel(phenotype, catalogue) : '',
      pBefore: before[cell]!,
      p: after[cell]!,
    };
  });
}

function geneOdds({ loci, size, before, after }: PhenotypeSpace, catalogue: Catalogue): GeneOdds[] {
  let stride = size;
  return loci.flatMap(({ locus, phenotypes }) => {
    stride /= phenotypes.length;
    const sums = phenotypes.map(() => [0, 0] as [number, number]);
    for (let i = 0; i < size; i++) {
      const sum = sums[Math.floor(i / stride) % phenotypes.length]!;
      sum[0] += before[i]!;
      sum[1] += after[i]!;
    }
    return phenotypes.flatMap((text, at) =>
      text === ''
        ? []
        : [
            {
              locus: locus.id,
              phenotype: text,
              label: phenotypeLabel({ [locus.id]: text }, catalogue),
              pBefore: sums[at]![0],
              p: sums[at]![1],
            },
          ],
    );
  });
}

function carriedOdds(
  hypotheses: readonly Hypothesis[],
  counted: readonly CountedObservation[],
  catalogue: Catalogue,
): Ranking['carried'] {
  const alleles = new Set(counted.flatMap(({ marker }) => (marker.isOfCarriers ? marker.phenotypes : [])));
  return [...alleles].flatMap((allele) => {
    const locus = catalogue.alleleById(allele)!.locus;
    let [all, carried, allAfter, carriedAfter] = [0, 0, 0, 0];
    for (const { weight, loci } of hypotheses) {
      for (const { genotype, p } of loci.find((one) => one.locus === locus.id)?.genotypes ?? WILD_ONLY) {
        if (appearance(locus, genotype) !== '') continue;
        const after = weight * p * carrierLikelihood(counted, locus, genotype);
        all += weight * p;
        allAfter += after;
        if (!genotype.includes(allele)) continue;
        carried += weight * p;
        carriedAfter += after;
      }
    }
    return carried > 0 ? [{ allele, pBefore: carried / all, p: carriedAfter / allAfter }] : [];
  });
}

function outsideOf(
  loci: PhenotypeSpace['loci'],
  hypotheses: readonly Hypothesis[],
  counted: readonly CountedObservation[],
): string[] {
  const open = loci.flatMap(({ phenotypes }) => phenotypes);
  const alleles = new Set(
    hypotheses.flatMap((one) =>
      one.loci.flatMap(({ genotypes }) => genotypes.flatMap(({ genotype }) => [...genotype])),
    ),
  );
  return counted
    .filter(({ marker, observation }) => {
      if (observation !== 'seen') return false;
      return marker.isOfCarriers
        ? !marker.phenotypes.some((allele) => alleles.has(allele))
        : !open.some((text) => showsMarker(marker, text));
    })
    .map(({ marker }) => marker.id);
}

/** What the observations say of the sire and the sex: each hypothesis's share of all that is left. */
function whoAndWhich(
  hypotheses: readonly Hypothesis[],
  shares: readonly number[],
): Pick<Ranking, 'sires' | 'pFemale'> {
  const total = shares.reduce((a, b) => a + b, 0);
  const sires: Record<string, number> = {};
  let pFemale = 0;
  hypotheses.forEach(({ sire, sex }, s) => {
    const share = total > 0 ? shares[s]! / total : 0;
    if (sire !== null) sires[sire] = (sires[sire] ?? 0) + share;
    if (sex === 'female') pFemale += share;
  });
  return { sires, pFemale };
}
