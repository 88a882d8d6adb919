import type { Genotype, WeightedGenotype } from '../loci/genotype.ts';
import { sireCount, UNKNOWN } from '../pedigree/index-pedigree.ts';
import type { PedigreeEngine } from './engine.ts';
import { conflictsOf, NEGLIGIBLE, type Conflict } from './infer.ts';

/** A whole collection's posterior in few large arrays: cheap to hand from one thread to another. */
export interface CompactPosterior {
  readonly exact: boolean;
  readonly ids: readonly string[];
  readonly loci: readonly {
    readonly id: string;
    readonly alleles: readonly string[];
    /** Animal -> which table. */
    readonly tableOf: Int32Array;
    /** One table after the other, each `[first allele][second allele]`, row-major, adding up to 1. */
    readonly tables: Float64Array;
  }[];
  /** Animals with several candidate sires: the probability of each. */
  readonly sires: readonly (readonly [string, readonly (readonly [string, number])[]])[];
  /** Animals of unrecorded sex: the probability that it is female. */
  readonly female: readonly (readonly [string, number])[];
  readonly conflicts: readonly Conflict[];
}

/** @example Object.keys(toCompact(new PedigreeEngine(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [{ id: 'F1', sex: 'female' }] })))) // ["exact", "ids", "loci", "sires", "female", "conflicts"] */
export function toCompact(engine: PedigreeEngine): CompactPosterior {
  const { index, pedigree } = engine;
  return {
    exact: engine.exact,
    ids: index.ids,
    loci: pedigree.loci.flatMap((locus, l) => {
      const state = engine.compact(l);
      if (!state) return [];
      const cells = state.distributions[0]!.length;
      const tables = new Float64Array(state.distributions.length * cells);
      state.distributions.forEach((table, at) => tables.set(table, at * cells));
      return [
        {
          id: locus.id,
          alleles: engine.alleles(l),
          tableOf: state.distributionOf.slice(0, index.size),
          tables,
        },
      ];
    }),
    sires: pedigree.animals.flatMap((animal, i) => {
      if (sireCount(index, i) < 2) return [];
      const odds = engine.sireOdds(i);
      return [[animal.id, animal.sires!.map((sire, k) => [sire.id, odds[k]!] as const)] as const];
    }),
    female: pedigree.animals.flatMap((animal, i) =>
      index.sex[i] === UNKNOWN ? [[animal.id, engine.femaleOdds(i)] as const] : [],
    ),
    conflicts: conflictsOf(engine),
  };
}

/** Reads a compact posterior, an animal at a time. */
export class PosteriorView {
  readonly exact: boolean;
  readonly conflicts: readonly Conflict[];
  /** Ids of the loci that hold. */
  readonly loci: readonly string[];
  readonly sires: ReadonlyMap<string, ReadonlyMap<string, number>>;
  readonly female: ReadonlyMap<string, number>;
  private readonly compact: CompactPosterior;
  private readonly placeOf: ReadonlyMap<string, number>;
  private readonly read = new Map<string, ReadonlyMap<string, readonly WeightedGenotype[]>>();

  constructor(compact: CompactPosterior) {
    this.compact = compact;
    this.exact = compact.exact;
    this.conflicts = compact.conflicts;
    this.loci = compact.loci.map(({ id }) => id);
    this.placeOf = new Map(compact.ids.map((id, at) => [id, at]));
    this.sires = new Map(compact.sires.map(([id, odds]) => [id, new Map(odds)]));
    this.female = new Map(compact.female);
  }

  /** Locus -> what the animal can be there; empty for an animal that is not known. Loci that clash are left out. */
  genotypes(animal: string): ReadonlyMap<string, readonly WeightedGenotype[]> {
    let known = this.read.get(animal);
    if (known) return known;
    const at = this.placeOf.get(animal);
    known = new Map(
      at === undefined
        ? []
        : this.compact.loci.map(({ id, alleles, tableOf, tables }) => {
            const k = alleles.length;
            const start = tableOf[at]! * k * k;
            const found: WeightedGenotype[] = [];
            for (let cell = 0; cell < k * k; cell++) {
              const p = tables[start + cell]!;
              const genotype: Genotype = [alleles[Math.floor(cell / k)]!, alleles[cell % k]!];
              if (p > NEGLIGIBLE) found.push({ genotype, p });
            }
            return [id, found];
          }),
    );
    this.read.set(animal, known);
    return known;
  }
}
