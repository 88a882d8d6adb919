import type { Genotype, WeightedGenotype } from '../loci/genotype.ts';
import type { Pedigree } from '../pedigree/document.ts';
import { sireCount, UNKNOWN } from '../pedigree/index-pedigree.ts';
import { ConsistencyCheck } from './conflict/consistency.ts';
import { smallestConflict } from './conflict/smallest-set.ts';
import { PedigreeEngine, type Clash } from './engine.ts';
import type { Estimator } from './parts.ts';

/** Records that cannot all be true, and one smallest set of animals whose calls cannot hold together. */
export interface Conflict {
  /** A locus, or `sires` or `sex` where each locus holds alone but no choice of sires (or sexes) fits them all. */
  readonly locus: string;
  readonly animals: readonly string[];
  /** The loci that clash: more than one for `sires` and `sex`. */
  readonly loci: readonly string[];
}

/** A genotype with its probability, and the standard error of that where it is an estimate. */
export interface PosteriorGenotype extends WeightedGenotype {
  readonly se?: number;
}

export interface Posterior {
  readonly exact: boolean;
  /** Natural logarithm of the probability of all calls; null where they cannot all be true. */
  readonly logLikelihood: number | null;
  /** Animal -> locus -> distribution. Of unknown sex, sex-linked pairs are unordered, both sexes added. */
  readonly animals: ReadonlyMap<string, ReadonlyMap<string, readonly PosteriorGenotype[]>>;
  /** Animals with several candidates: candidate -> probability. */
  readonly sires: ReadonlyMap<string, ReadonlyMap<string, number>>;
  /** Animals of unrecorded sex: the probability that it is female. */
  readonly female: ReadonlyMap<string, number>;
  readonly conflicts: readonly Conflict[];
}

/** States less probable than this are left out of an answer. */
export const NEGLIGIBLE = 1e-12;

/**
 * The genotype distribution of every animal at every locus, given all calls of all relatives.
 *
 * Loci are tied to one another only through an animal whose sire is open, or whose sex is. Loci at which the records
 * contradict one another are left out and named in `conflicts`.
 *
 * @param pedigree - checked (`parsePedigree` checks a document)
 * @param estimate - answers where a part is too wide to be exact
 * @throws CostError where the exact answer needs too large a table and there is no `estimate`
 * @example infer(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [{ id: 'F1', sex: 'female' }] })).exact // true
 */
export function infer(pedigree: Pedigree, estimate?: Estimator): Posterior {
  return readPosterior(new PedigreeEngine(pedigree, estimate));
}

/**
 * Everything an engine found, as one friendly object. Cost: one step for each animal and locus.
 *
 * @example readPosterior(new PedigreeEngine(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [{ id: 'F1', sex: 'female' }] }))).exact // true
 */
export function readPosterior(engine: PedigreeEngine): Posterior {
  const { index, pedigree } = engine;
  return {
    exact: engine.exact,
    logLikelihood: engine.logLikelihood,
    animals: new Map(pedigree.animals.map((animal, i) => [animal.id, genotypesAt(engine, i)])),
    sires: new Map(
      pedigree.animals.flatMap((animal, i) => {
        if (sireCount(index, i) < 2) return [];
        const odds = engine.sireOdds(i);
        return [[animal.id, new Map(animal.sires!.map((sire, k) => [sire.id, odds[k]!]))] as const];
      }),
    ),
    female: new Map(
      pedigree.animals.flatMap((animal, i) =>
        index.sex[i] === UNKNOWN ? [[animal.id, engine.femaleOdds(i)] as const] : [],
      ),
    ),
    conflicts: conflictsOf(engine),
  };
}

/** What an animal can be at a locus, likely or not, as friendly objects. */
export function genotypesOf(engine: PedigreeEngine, animal: number, locus: number): PosteriorGenotype[] {
  const alleles = engine.alleles(locus);
  const error = engine.standardError(animal, locus);
  const found: PosteriorGenotype[] = [];
  engine.distribution(animal, locus)!.forEach((p, cell) => {
    if (p <= NEGLIGIBLE) return;
    const genotype: Genotype = [alleles[Math.floor(cell / alleles.length)]!, alleles[cell % alleles.length]!];
    found.push({ genotype, p, ...(error ? { se: error[cell]! } : engine.exact ? {} : { se: 0 }) });
  });
  return found;
}

/**
 * Locus id -> what an animal can be there. Loci that clash are left out.
 *
 * @param animal - its place in the pedigree
 * @example genotypesAt(new PedigreeEngine(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [{ id: 'F1', sex: 'female' }] })), 0).size // 0
 */
export function genotypesAt(engine: PedigreeEngine, animal: number): Map<string, PosteriorGenotype[]> {
  return new Map(
    engine.pedigree.loci.flatMap(({ id }, l) =>
      engine.compact(l) ? [[id, genotypesOf(engine, animal, l)] as const] : [],
    ),
  );
}

/**
 * What clashes, with a smallest set of animals each. Cost: some hundred consistency checks for each clash.
 *
 * @example conflictsOf(new PedigreeEngine(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [] }))) // []
 */
export function conflictsOf({ pedigree, clashes }: PedigreeEngine): Conflict[] {
  return clashes.map((clash) => conflictOf(pedigree, clash));
}

function conflictOf(pedigree: Pedigree, { kind, loci }: Clash): Conflict {
  const animals = smallestConflict(new ConsistencyCheck(pedigree, loci));
  return {
    locus: kind === 'locus' ? loci[0]! : kind,
    animals: animals.map((i) => pedigree.animals[i]!.id),
    loci,
  };
}
