import type { Catalogue } from '../catalogue/catalogue.ts';
import { CostError } from '../errors.ts';
import { appearance } from '../loci/genotype.ts';
import { showsTell } from './cover.ts';
import {
  looksAt,
  looksLabel,
  looksOf,
  mix,
  NEGLIGIBLE,
  spread,
  tabulate,
  totalOf,
  WILD_ONLY,
  type LooksSpace,
  type Hypothesis,
} from './looks-space.ts';
import {
  chanceOf,
  countedSightings,
  markerLikelihood,
  type CountedSighting,
  type Sightings,
} from './sightings.ts';

/** One thing the animal can be, as far as the eye can tell. */
export interface Candidate {
  readonly label: string;
  /** Locus id -> what shows there, where something does. */
  readonly looks: Readonly<Record<string, string>>;
  /** Before it was looked at, and with the tells. */
  readonly pBefore: number;
  readonly p: number;
}

/** How one gene stands: whether it shows. */
export interface GeneOdds {
  readonly locus: string;
  readonly looks: string;
  readonly label: string;
  readonly pBefore: number;
  readonly p: number;
}

/** What one zone's look at one gene adds. */
export interface TellWeight {
  readonly tell: string;
  /** How many times likelier the sighting is where the gene shows uncovered than where it does not. */
  readonly factor: number;
  /** Another tell of the gene in the same zone counts instead. */
  readonly countedWith: string | null;
}

export interface Ranking {
  /** Likeliest first. */
  readonly candidates: readonly Candidate[];
  /** How many more there are. */
  readonly rarer: number;
  /** Looks no likelier than this at one locus were left out, so that the rest could be weighed; 0 where none were. */
  readonly least: number;
  readonly genes: readonly GeneOdds[];
  readonly tells: readonly TellWeight[];
  /** Carried unseen, where a marker was looked for: allele id -> odds before and after. */
  readonly carried: readonly { readonly allele: string; readonly pBefore: number; readonly p: number }[];
  /** Tells seen of genes that the records leave no room for. */
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
 * sighting. Sightings are independent of one another given what shows, but for those that one look takes in.
 *
 * @throws CostError where what can show has too many combinations
 */
export function rank(
  hypotheses: readonly Hypothesis[],
  sightings: Sightings,
  catalogue: Catalogue,
): { ranking: Ranking; space: LooksSpace } {
  const { loci, size, least } = fittingLooks(hypotheses, catalogue);
  if (size > LARGEST) throw new CostError(size, LARGEST);
  const counted = countedSightings(catalogue.tells, sightings);
  const marked = counted.some(({ tell }) => tell.isMarker);
  const likelihood = new Float64Array(size).fill(1);
  for (const { tell, sighting } of counted) {
    if (tell.isMarker) continue;
    const table = tabulate(loci, size, tell, catalogue);
    if (!table) continue;
    for (let i = 0; i < size; i++)
      likelihood[i]! *= sighting === 'seen' ? table.seen[i]! : 1 - table.seen[i]!;
  }
  const priors = hypotheses.map((hypothesis) => spread(loci, hypothesis, () => 1));
  const byMarkers = marked
    ? hypotheses.map((hypothesis) =>
        spread(loci, hypothesis, (locus, genotype) => markerLikelihood(counted, locus, genotype)),
      )
    : priors;
  const posteriors = byMarkers.map((table) => table.map((p, i) => p * likelihood[i]!));
  const before = mix(priors, size);
  const after = mix(posteriors, size);
  const space: LooksSpace = { loci, size, before, after };
  const candidates = rankCandidates(space, catalogue);
  return {
    space,
    ranking: {
      candidates: candidates.slice(0, SHOWN),
      rarer: Math.max(0, candidates.length - SHOWN),
      least,
      genes: geneOdds(space, catalogue),
      tells: counted.flatMap(({ tell, sighting, instead }) => {
        const factor = chanceOf(tell, sighting, true) / chanceOf(tell, sighting, false);
        return [
          { tell: tell.id, factor, countedWith: null },
          ...instead.map(({ id }) => ({ tell: id, factor: 1, countedWith: tell.id })),
        ];
      }),
      carried: marked ? carriedOdds(hypotheses, counted, catalogue) : [],
      outside: outsideOf(loci, hypotheses, counted),
      ...whoAndWhich(hypotheses, posteriors.map(totalOf)),
    },
  };
}

/** More combinations than this make a touch wait: the faintest looks then go, as many as need be. */
const COMFORTABLE = 20_000;
const FAINT = [1e-6, 1e-5, 1e-4, 1e-3, 1e-2];

function fittingLooks(
  hypotheses: readonly Hypothesis[],
  catalogue: Catalogue,
): { loci: LooksSpace['loci']; size: number; least: number } {
  const sizeOf = (loci: LooksSpace['loci']): number =>
    loci.reduce((product, { looks }) => product * looks.length, 1);
  let loci = looksOf(hypotheses, catalogue);
  let least = 0;
  for (const faint of FAINT) {
    if (sizeOf(loci) <= COMFORTABLE) break;
    const fewer = looksOf(hypotheses, catalogue, faint);
    if (sizeOf(fewer) < sizeOf(loci)) least = faint;
    loci = fewer;
  }
  return { loci, size: sizeOf(loci), least };
}

function rankCandidates({ loci, size, before, after }: LooksSpace, catalogue: Catalogue): Candidate[] {
  const order = Array.from({ length: size }, (_, i) => i)
    .filter((i) => before[i]! > NEGLIGIBLE)
    .toSorted((a, b) => after[b]! - after[a]! || before[b]! - before[a]! || a - b);
  return order.map((cell, place) => {
    // Only what is shown needs its words.
    const looks = place < SHOWN ? looksAt(loci, cell) : {};
    return {
      looks,
      label: place < SHOWN ? looksLabel(looks, catalogue) : '',
      pBefore: before[cell]!,
      p: after[cell]!,
    };
  });
}

function geneOdds({ loci, size, before, after }: LooksSpace, catalogue: Catalogue): GeneOdds[] {
  let stride = size;
  return loci.flatMap(({ locus, looks }) => {
    stride /= looks.length;
    const sums = looks.map(() => [0, 0] as [number, number]);
    for (let i = 0; i < size; i++) {
      const sum = sums[Math.floor(i / stride) % looks.length]!;
      sum[0] += before[i]!;
      sum[1] += after[i]!;
    }
    return looks.flatMap((text, at) =>
      text === ''
        ? []
        : [
            {
              locus: locus.id,
              looks: text,
              label: looksLabel({ [locus.id]: text }, catalogue),
              pBefore: sums[at]![0],
              p: sums[at]![1],
            },
          ],
    );
  });
}

function carriedOdds(
  hypotheses: readonly Hypothesis[],
  counted: readonly CountedSighting[],
  catalogue: Catalogue,
): Ranking['carried'] {
  const alleles = new Set(counted.flatMap(({ tell }) => (tell.isMarker ? tell.looks : [])));
  return [...alleles].flatMap((allele) => {
    const locus = catalogue.alleleById(allele)!.locus;
    let [all, carried, allAfter, carriedAfter] = [0, 0, 0, 0];
    for (const { weight, loci } of hypotheses) {
      for (const { genotype, p } of loci.find((one) => one.locus === locus.id)?.genotypes ?? WILD_ONLY) {
        if (appearance(locus, genotype) !== '') continue;
        const after = weight * p * markerLikelihood(counted, locus, genotype);
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
  loci: LooksSpace['loci'],
  hypotheses: readonly Hypothesis[],
  counted: readonly CountedSighting[],
): string[] {
  const open = loci.flatMap(({ looks }) => looks);
  const alleles = new Set(
    hypotheses.flatMap((one) =>
      one.loci.flatMap(({ genotypes }) => genotypes.flatMap(({ genotype }) => [...genotype])),
    ),
  );
  return counted
    .filter(({ tell, sighting }) => {
      if (sighting !== 'seen') return false;
      return tell.isMarker
        ? !tell.looks.some((allele) => alleles.has(allele))
        : !open.some((text) => showsTell(tell, text));
    })
    .map(({ tell }) => tell.id);
}

/** What the sightings say of the sire and the sex: each hypothesis's share of all that is left. */
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
