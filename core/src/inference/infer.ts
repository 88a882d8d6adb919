import { canonical, genotypeKey, type WeightedGenotype } from '../loci/genotype.ts';
import type { Pedigree } from '../pedigree/document.ts';
import { eliminate, type Marginals } from './eliminate.ts';
import { buildNetwork, type Network } from './network.ts';

/** A locus whose records cannot all be true, and one smallest set of animals whose calls cannot hold together. */
export interface Conflict {
  readonly locus: string;
  readonly animals: readonly string[];
}

export interface Posterior {
  /** Natural logarithm of the probability of all calls; null where they cannot all be true. */
  readonly logLikelihood: number | null;
  /** Animal -> locus -> distribution. Of unknown sex, sex-linked pairs are unordered, both sexes added. */
  readonly animals: ReadonlyMap<string, ReadonlyMap<string, readonly WeightedGenotype[]>>;
  /** Animals with several candidates: candidate -> probability. */
  readonly sires: ReadonlyMap<string, ReadonlyMap<string, number>>;
  readonly conflicts: readonly Conflict[];
}

/** States less probable than this are left out of an answer. */
const NEGLIGIBLE = 1e-12;

/**
 * The genotype distribution of every animal at every locus, given all calls of all relatives. Exact.
 *
 * Loci are tied to one another only through an animal whose sire is open, or whose sex is. A locus at which the records
 * contradict one another is left out and named in `conflicts`; where loci only clash through the choice of sires, the
 * conflict's locus is `sires`.
 *
 * @param pedigree - checked: parents exist, nobody is its own ancestor, distributions add up to 1
 * @throws CostError where the exact answer needs too large a table
 */
export function infer(pedigree: Pedigree): Posterior {
  const whole = solve(pedigree);
  if (whole) return read(pedigree, whole, []);
  // Only where something clashes is each locus asked alone.
  const conflicts = pedigree.loci.flatMap((locus) => {
    const alone = { ...pedigree, loci: [locus] };
    return solve(alone) ? [] : [{ locus: locus.id, animals: smallestConflict(alone) }];
  });
  const atFault = new Set(conflicts.map((conflict) => conflict.locus));
  const sound = { ...pedigree, loci: pedigree.loci.filter((locus) => !atFault.has(locus.id)) };
  const rest = solve(sound);
  if (rest) return read(sound, rest, conflicts);
  const clash = { locus: 'sires', animals: smallestConflict(sound) };
  return { logLikelihood: null, animals: new Map(), sires: new Map(), conflicts: [...conflicts, clash] };
}

interface Solution extends Marginals {
  readonly network: Network;
}

/** @returns null where the calls cannot all be true */
function solve(pedigree: Pedigree): Solution | null {
  const network = buildNetwork(pedigree);
  if (network.sizes.includes(0)) return null;
  const marginals = eliminate(network.sizes, network.factors);
  return marginals.logTotal > -Infinity ? { network, ...marginals } : null;
}

function read(pedigree: Pedigree, solution: Solution, conflicts: readonly Conflict[]): Posterior {
  const { network, logTotal, marginals } = solution;
  return {
    logLikelihood: conflicts.length > 0 ? null : logTotal,
    animals: readAnimals(pedigree, network, marginals),
    sires: readSires(pedigree, network, marginals),
    conflicts,
  };
}

/** Drops the calls of one animal after another for as long as the rest still clash: what is left is a smallest set. */
function smallestConflict(pedigree: Pedigree): string[] {
  let animals = pedigree.animals;
  const kept: string[] = [];
  for (const { id, calls } of pedigree.animals) {
    if (!calls?.length) continue;
    const without = animals.map((animal) => (animal.id === id ? { ...animal, calls: [] } : animal));
    if (solve({ ...pedigree, animals: without })) kept.push(id);
    else animals = without;
  }
  return kept;
}

function readAnimals(
  pedigree: Pedigree,
  network: Network,
  marginals: readonly Float64Array[],
): Map<string, Map<string, WeightedGenotype[]>> {
  return new Map(
    pedigree.animals.map((animal) => [
      animal.id,
      new Map(
        pedigree.loci.map((locus) => {
          const { variable, states } = network.genotypes.get(`${animal.id}|${locus.id}`)!;
          const ordered = locus.sexLinked && animal.sex === 'male';
          const merged = new Map<string, WeightedGenotype>();
          states.forEach(({ pair }, i) => {
            const genotype = ordered ? pair : canonical(pair[0], pair[1]);
            const key = genotypeKey(genotype);
            merged.set(key, { genotype, p: marginals[variable]![i]! + (merged.get(key)?.p ?? 0) });
          });
          return [locus.id, [...merged.values()].filter(({ p }) => p > NEGLIGIBLE)];
        }),
      ),
    ]),
  );
}

function readSires(
  pedigree: Pedigree,
  network: Network,
  marginals: readonly Float64Array[],
): Map<string, Map<string, number>> {
  return new Map(
    [...network.sires].map(([id, variable]) => {
      const candidates = pedigree.animals.find((animal) => animal.id === id)!.sires!;
      return [id, new Map(candidates.map((sire, i) => [sire.id, marginals[variable]![i]!]))];
    }),
  );
}
