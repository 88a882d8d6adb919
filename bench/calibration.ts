import { compilePedigree, createEstimator, infer, type Genotype } from '@karyotome/core';
import { type Simulated } from './simulated-collection.ts';

/*
 * Whether probabilities hold: of what the engine gives 10 to 20%, so much has to be true. Deciles over all genotypes and all
 * candidate sires of collections whose truth is known. Probabilities of one family hang together, so that the deviation is
 * judged by how much it differs between collections, not by counting each probability as its own.
 */

const BINS = 10;
/** Nearer to 0 or 1 than this, a probability counts as certain. */
const CERTAIN = 1e-9;

export interface Bin {
  readonly from: number;
  readonly count: number;
  readonly meanP: number;
  readonly trueShare: number;
  /** The deviation in standard errors, between collections. */
  readonly z: number;
}

export interface Calibration {
  readonly collections: number;
  readonly exact: number;
  readonly bins: readonly Bin[];
  readonly certain: number;
  readonly falseCertain: number;
}

interface Sum {
  count: number;
  p: number;
  hits: number;
}

/** @param simulate - draws the collection of a seed */
export function calibrate(seeds: readonly number[], simulate: (seed: number) => Simulated): Calibration {
  const perCollection: Sum[][] = [];
  let [certain, falseCertain, exact] = [0, 0, 0];
  for (const seed of seeds) {
    const sums = Array.from({ length: BINS }, (): Sum => ({ count: 0, p: 0, hits: 0 }));
    const collection = simulate(seed);
    const posterior = infer(compilePedigree(collection.animals), createEstimator());
    if (posterior.exact) exact++;
    for (const { p, isTrue } of predictions(collection, posterior)) {
      if (p > 1 - CERTAIN) {
        certain++;
        if (!isTrue) falseCertain++;
      } else if (p > CERTAIN) {
        const sum = sums[Math.min(BINS - 1, Math.floor(p * BINS))]!;
        sum.count++;
        sum.p += p;
        if (isTrue) sum.hits++;
      }
    }
    perCollection.push(sums);
  }
  const bins = Array.from({ length: BINS }, (_, b): Bin => {
    const own = perCollection.map((sums) => sums[b]!);
    const total = (pick: (sum: Sum) => number): number => own.reduce((sum, one) => sum + pick(one), 0);
    const count = total((one) => one.count);
    const deviation = total((one) => one.hits - one.p);
    const spread = Math.sqrt(total((one) => (one.hits - one.p) ** 2));
    return {
      from: b / BINS,
      count,
      meanP: total((one) => one.p) / count,
      trueShare: total((one) => one.hits) / count,
      z: deviation / spread,
    };
  });
  return { collections: seeds.length, exact, bins, certain, falseCertain };
}

function* predictions(
  { animals, truth, sires }: Simulated,
  posterior: ReturnType<typeof infer>,
): Generator<{ p: number; isTrue: boolean }> {
  const key = ([a, b]: Genotype): string => [a, b].toSorted().join('/');
  // Of one that died in the egg the engine does not suppose that its genes were the cause; here they always are.
  const dead = new Set(animals.filter(({ diedInEgg }) => diedInEgg).map(({ id }) => id));
  for (const [animal, loci] of posterior.animals)
    for (const [locus, genotypes] of dead.has(animal) ? [] : loci) {
      const real = key(truth.get(animal)!.get(locus)!);
      for (const { genotype, p } of genotypes) yield { p, isTrue: key(genotype) === real };
    }
  for (const [animal, candidates] of posterior.sires)
    for (const [sire, p] of candidates) yield { p, isTrue: sires.get(animal) === sire };
}
