import { MALE, type IndexedPedigree } from '../pedigree/index-pedigree.ts';
import type { Domain, DomainTable } from './domain-table.ts';
import type { LocusEvidence } from './evidence.ts';
import type { Distribution } from './model.ts';

/** Tables over the ordered pairs that single animals can have at one locus, `[first * alleles + second]`. */
export class PairTables {
  private readonly ties: IndexedPedigree;
  private readonly evidence: LocusEvidence;
  private readonly table: DomainTable;
  private readonly place: Int32Array;
  private readonly k: number;
  private readonly linked: boolean;

  /** @param place - of each animal's domain in `table` */
  constructor(options: {
    ties: IndexedPedigree;
    evidence: LocusEvidence;
    table: DomainTable;
    place: Int32Array;
  }) {
    this.ties = options.ties;
    this.evidence = options.evidence;
    this.table = options.table;
    this.place = options.place;
    this.k = options.evidence.alleles.length;
    this.linked = options.evidence.locus.sexLinked === true;
  }

  domain(animal: number): Domain {
    return this.table.domains[this.place[animal]!]!;
  }

  isOrdered(animal: number): boolean {
    return this.linked && this.ties.sex[animal] === MALE;
  }

  /** P(pair) times P(calls | pair) of a founder, over what its relatives leave of it. */
  ofFounder(i: number): Float64Array {
    const { pairs } = this.domain(i);
    const likelihood = this.evidence.likelihoods[this.evidence.likelihood[i]!]!;
    return this.evidence.priors[this.evidence.prior[i]!]!.map((p, cell) =>
      pairs[cell] ? p * likelihood[cell]! : 0,
    );
  }

  /** P(pair) times P(calls | pair) of an animal, given what each parent hands on. */
  ofBred(i: number, fromDam: Float64Array, fromSire: Float64Array): Float64Array {
    const table = new Float64Array(this.k * this.k);
    this.spread(i, fromDam, fromSire, table, 1);
    return table;
  }

  /** Adds weight times P(pair | what each parent hands on) times P(calls | pair) to a table; returns what was added. */
  spread(
    i: number,
    fromDam: Float64Array,
    fromSire: Float64Array,
    into: Float64Array,
    weight: number,
  ): number {
    const { pairs } = this.domain(i);
    const likelihood = this.evidence.likelihoods[this.evidence.likelihood[i]!]!;
    const { k } = this;
    let sum = 0;
    if (this.ties.bredAlone[i] === 1) {
      // Terminal fusion doubles one of the dam's alleles (Booth et al. 2014, Biol. J. Linn. Soc. 112: P. regius).
      for (let a = 0; a < k; a++) {
        const p = weight * fromDam[a]! * pairs[a * k + a]! * likelihood[a * k + a]!;
        into[a * k + a]! += p;
        sum += p;
      }
      return sum;
    }
    for (let a = 0; a < k; a++) {
      if (fromDam[a] === 0) continue;
      for (let b = 0; b < k; b++) {
        const cell = a * k + b;
        if (pairs[cell] === 0) continue;
        const p = weight * fromDam[a]! * fromSire[b]! * likelihood[cell]!;
        into[cell]! += p;
        sum += p;
      }
    }
    return sum;
  }

  /** Both orders of a pair at first <= second. */
  folded(table: Float64Array): Float64Array {
    const { k } = this;
    const folded = new Float64Array(k * k);
    for (let a = 0; a < k; a++)
      for (let b = 0; b < k; b++) folded[Math.min(a, b) * k + Math.max(a, b)]! += table[a * k + b]!;
    return folded;
  }

  /** As it is reported: ordered for a male at a sex-linked locus, else folded; adding up to 1. */
  reported(i: number, table: Float64Array): Distribution {
    const folded = this.isOrdered(i) ? table : this.folded(table);
    const sum = folded.reduce((a, b) => a + b, 0);
    return folded.map((p) => p / sum);
  }
}
