import { compareAlleles, type Genotype } from '../loci/genotype.ts';
import { WILD } from '../loci/locus.ts';
import type { Call, PedigreeAnimal, PedigreeLocus } from '../pedigree/document.ts';
import { MALE } from '../pedigree/index-pedigree.ts';

/** Tables over ordered pairs of alleles (from dam, from sire), row-major, each kept once and known by its place. */
class TablePool {
  readonly tables: Float64Array[] = [];
  private readonly places = new Map<string, number>();

  place(key: string, make: () => Float64Array): number {
    const known = this.places.get(key);
    if (known !== undefined) return known;
    this.places.set(key, this.tables.length);
    return this.tables.push(make()) - 1;
  }
}

/**
 * What is recorded at one locus. Animals with equal records share a table, so that equal work can be told and done once.
 *
 * Places stay what they are when records change: an animal whose places are unchanged has unchanged evidence.
 */
export class LocusEvidence {
  readonly locus: PedigreeLocus;
  /** Wild type first, then in code-unit order: a genotype's spelling follows from the alleles' places. */
  readonly alleles: readonly string[];
  /** Founders: the place of P(pair) in `priors`. 0 is wild type for certain. */
  prior: Int32Array;
  /** The place of P(all calls | pair) in `likelihoods`. 0 where nothing was called. */
  likelihood: Int32Array;
  private readonly placeOf: ReadonlyMap<string, number>;
  private readonly priorPool = new TablePool();
  private readonly likelihoodPool = new TablePool();
  /** Where single calls of a set were placed last, by the set's reference: compiled records share sets. */
  private readonly single = new WeakMap<
    readonly Genotype[],
    { readonly error: number; readonly outside: number; readonly place: number }
  >();

  constructor(locus: PedigreeLocus, size: number) {
    this.locus = locus;
    this.alleles = [WILD, ...locus.alleles.toSorted(compareAlleles)];
    this.placeOf = new Map(this.alleles.map((allele, at) => [allele, at]));
    this.prior = new Int32Array(size);
    this.likelihood = new Int32Array(size);
    this.priorPool.place('wild', () => this.table((a, b) => (a === 0 && b === 0 ? 1 : 0)));
    this.likelihoodPool.place('', () => this.table(() => 1));
  }

  get priors(): readonly Float64Array[] {
    return this.priorPool.tables;
  }

  get likelihoods(): readonly Float64Array[] {
    return this.likelihoodPool.tables;
  }

  /** Makes room for animals added at the end: with some to spare, since the next one comes soon. */
  grow(size: number): void {
    if (this.prior.length >= size) return;
    const longer = (old: Int32Array): Int32Array<ArrayBuffer> => {
      const grown = new Int32Array(size + (size >> 3));
      grown.set(old);
      return grown;
    };
    this.prior = longer(this.prior);
    this.likelihood = longer(this.likelihood);
  }

  /** Takes in what is recorded of one animal here. @returns whether it differs from before */
  read(animal: number, calls: readonly Call[], founder: PedigreeAnimal['founder'], sex: number): boolean {
    const likelihood = this.readCalls(calls);
    const prior = this.readFounder(founder?.[this.locus.id], sex);
    const changed = this.likelihood[animal] !== likelihood || this.prior[animal] !== prior;
    this.likelihood[animal] = likelihood;
    this.prior[animal] = prior;
    return changed;
  }

  private table(cell: (first: number, second: number) => number): Float64Array {
    const k = this.alleles.length;
    return Float64Array.from({ length: k * k }, (_, at) => cell(Math.floor(at / k), at % k));
  }

  private cell(first: string, second: string, ordered = false): number {
    const a = this.placeOf.get(first)!;
    const b = this.placeOf.get(second)!;
    const k = this.alleles.length;
    return ordered || a <= b ? a * k + b : b * k + a;
  }

  private spell(set: readonly Genotype[]): readonly number[] {
    return [...new Set(set.map(([a, b]) => this.cell(a, b)))].sort((a, b) => a - b);
  }

  private readCalls(calls: readonly Call[]): number {
    if (calls.length === 0) return 0;
    if (calls.length > 1) return this.placeCalls(calls);
    const [call] = calls;
    const { error = 0, outside = error } = call!;
    const known = this.single.get(call!.is);
    if (known?.error === error && known.outside === outside) return known.place;
    const place = this.placeCalls(calls);
    this.single.set(call!.is, { error, outside, place });
    return place;
  }

  private placeCalls(calls: readonly Call[]): number {
    const read = calls.map(({ is, error = 0, outside = error }) => ({
      cells: this.spell(is),
      error,
      outside,
    }));
    const key = read.map(({ cells, error, outside }) => `${cells.join()}~${error}~${outside}`).join('*');
    return this.likelihoodPool.place(key, () =>
      this.table((a, b) => {
        const cell = Math.min(a, b) * this.alleles.length + Math.max(a, b);
        return read.reduce(
          (p, { cells, error, outside }) => p * (cells.includes(cell) ? 1 - error : outside),
          1,
        );
      }),
    );
  }

  /**
   * Where order does not matter, one order stands for both: young cannot tell, and half the states are saved. That holds
   * of a founder whose sex is open too: it has no young, and calls do not see phase.
   */
  private readFounder(stated: readonly { genotype: Genotype; p: number }[] | undefined, sex: number): number {
    if (!stated) return 0;
    const ordered = this.locus.sexLinked === true && sex === MALE;
    const cells = new Map<number, number>();
    for (const { genotype, p } of stated) {
      const cell = this.cell(genotype[0], genotype[1], ordered);
      if (p > 0) cells.set(cell, (cells.get(cell) ?? 0) + p);
    }
    if (cells.size === 1 && cells.has(0)) return 0;
    const sum = [...cells.values()].reduce((a, b) => a + b, 0);
    const key = [...cells].map(([cell, p]) => `${cell}:${p}`).join();
    return this.priorPool.place(key, () =>
      this.table((a, b) => (cells.get(a * this.alleles.length + b) ?? 0) / sum),
    );
  }
}
