import { FEMALE, UNKNOWN, type IndexedPedigree } from '../pedigree/index-pedigree.ts';
import { DomainTable, EITHER, EMPTY_DOMAIN, FIRST, SECOND, WILD_DOMAIN } from './domain-table.ts';
import type { LocusEvidence } from './evidence.ts';

/** What can still be at one locus, after everything that hard evidence rules out is gone. */
export interface LocusDomains {
  /** Place of each animal's domain in the table. */
  readonly place: Int32Array;
  /** 1 where an animal is wild type for certain because of its ancestors, whatever is called of it and its young. */
  readonly plain: Uint8Array;
  /** Natural logarithm of the probability of all calls of the plain animals. */
  plainLog: number;
  /** All others, ancestors first. */
  readonly live: readonly number[];
  /** 1 for each candidate sire that can have sired, in the order of `IndexedPedigree.sire`. */
  readonly sireOpen: Uint8Array;
  /** False where nothing is left for somebody: the records contradict one another. */
  readonly possible: boolean;
}

export interface Narrowing {
  readonly ties: IndexedPedigree;
  readonly evidence: LocusEvidence;
  readonly table: DomainTable;
  /** Candidates that other loci have ruled out already are 0. */
  readonly sireOpen: Uint8Array;
  /** Frequency of each listed allele in an unrecorded parent. */
  readonly unrecorded: number;
  /** What was found before (and was possible), and whom to look at again: all that were live, and the changed with their
   * descendants, ancestors first. The others stay plain. */
  readonly since?: { readonly domains: LocusDomains; readonly among: readonly number[] };
}

/**
 * Narrows down what every animal can be, from parents to young and back, until nothing changes (arc consistency:
 * Mackworth 1977, Artificial Intelligence 8). Sound, not complete: what it rules out is impossible, what it leaves need
 * not be possible. Cost: a few steps for each animal and round; two or three rounds are usual.
 */
export function narrowDomains(narrowing: Narrowing): LocusDomains {
  return new Narrower(narrowing).run();
}

class Narrower {
  private readonly ties: IndexedPedigree;
  private readonly evidence: LocusEvidence;
  private readonly table: DomainTable;
  private readonly among: readonly number[] | Int32Array;
  private readonly place: Int32Array;
  private readonly plain: Uint8Array;
  private readonly open: Uint8Array;
  private readonly live: number[] = [];
  /** The alleles of an unrecorded parent. */
  private readonly anybody: number;
  private readonly recombines: boolean;
  private readonly linked: boolean;
  private readonly founders = new Map<number, number>();
  private plainLog: number;

  constructor({ ties, evidence, table, sireOpen, unrecorded, since }: Narrowing) {
    this.ties = ties;
    this.evidence = evidence;
    this.table = table;
    this.among = since?.among ?? ties.order;
    this.place = since ? since.domains.place.slice() : new Int32Array(ties.size);
    this.plain = since ? since.domains.plain.slice() : new Uint8Array(ties.size);
    this.plainLog = since?.domains.plainLog ?? 0;
    this.open = sireOpen.slice();
    this.anybody = unrecorded > 0 ? 2 ** evidence.alleles.length - 1 : 1;
    this.recombines = (evidence.locus.recombination ?? 0) > 0;
    this.linked = evidence.locus.sexLinked === true;
  }

  run(): LocusDomains {
    const { place, plain, live, open: sireOpen } = this;
    const possible = this.descend() && this.settle();
    return { place, plain, plainLog: this.plainLog, live, sireOpen, possible };
  }

  /** Once down the generations. @returns false where nothing is left for somebody */
  private descend(): boolean {
    for (const i of this.among) {
      if (this.plain[i] === 1) {
        this.plainLog -= logOf(this.callsOf(i)[0]!);
        this.plain[i] = 0;
      }
      const isFounder = this.ties.dam[i]! < 0 && this.ties.sireStart[i] === this.ties.sireStart[i + 1];
      // Most animals are wild type of wild type parents: they are never looked at again.
      if (isFounder ? this.placeFounder(i) : this.placeYoung(i)) continue;
      this.live.push(i);
      if (this.place[i] === EMPTY_DOMAIN) return false;
    }
    return true;
  }

  /** @returns whether it is wild type for certain */
  private placeFounder(i: number): boolean {
    const prior = this.evidence.prior[i]!;
    const calls = this.callsOf(i);
    if (prior === 0 && calls[0]! > 0) return this.placePlain(i, calls);
    const key = prior * 2 ** 24 + this.evidence.likelihood[i]!;
    let known = this.founders.get(key);
    if (known === undefined) {
      known = this.table.fromTables(this.evidence.priors[prior]!, calls);
      this.founders.set(key, known);
    }
    this.place[i] = known;
    return false;
  }

  /** @returns whether it is wild type for certain */
  private placeYoung(i: number): boolean {
    const calls = this.callsOf(i);
    const first = this.fromDam(i);
    const second = this.fromSires(i);
    if (first === 1 && second === 1 && calls[0]! > 0) return this.placePlain(i, calls);
    this.place[i] = this.table.cross(first, second, this.evidence.likelihood[i]!, calls);
    return false;
  }

  private placePlain(i: number, calls: Float64Array): true {
    this.place[i] = WILD_DOMAIN;
    this.plain[i] = 1;
    this.plainLog += logOf(calls[0]!);
    return true;
  }

  /** Up and down in turn until nothing changes. @returns false where nothing is left for somebody */
  private settle(): boolean {
    for (;;) {
      const ascended = this.ascend();
      if (ascended !== 'changed') return ascended === 'same';
      const descended = this.restrictYoung();
      if (descended !== 'changed') return descended === 'same';
    }
  }

  /** From young to parents, the youngest first. */
  private ascend(): Round {
    let round: Round = 'same';
    for (let at = this.live.length - 1; at >= 0; at--) {
      const i = this.live[at]!;
      const mother = this.ties.dam[i]!;
      const { first } = this.table.domains[this.place[i]!]!;
      const byDam = mother >= 0 ? this.narrowParent(mother, first, EITHER) : 'same';
      if (byDam === 'impossible') return 'impossible';
      const bySires = this.narrowSires(i);
      if (bySires === 'impossible') return 'impossible';
      if (byDam === 'changed' || bySires === 'changed') round = 'changed';
    }
    return round;
  }

  /** Closes the candidates that cannot have given what `i` has; the last one that is open must have given it. */
  private narrowSires(i: number): Round {
    const { sireStart, sire } = this.ties;
    const from = sireStart[i]!;
    const to = sireStart[i + 1]!;
    if (from === to) return 'same';
    const { second } = this.table.domains[this.place[i]!]!;
    const way = this.wayOf(i);
    let round: Round = 'same';
    let left = -1;
    let count = 0;
    for (let e = from; e < to; e++) {
      if (this.open[e] && to - from > 1 && (this.gametes(sire[e]!, way) & second) === 0) {
        this.open[e] = 0;
        round = 'changed';
      }
      if (this.open[e]) {
        left = e;
        count++;
      }
    }
    if (count === 0) return 'impossible';
    const narrowed = count === 1 ? this.narrowParent(sire[left]!, second, way) : 'same';
    return narrowed === 'same' ? round : narrowed;
  }

  private narrowParent(parent: number, given: number, way: number): Round {
    const left = this.table.sieve(this.place[parent]!, given, way);
    if (left === this.place[parent]) return 'same';
    this.place[parent] = left;
    return left === EMPTY_DOMAIN ? 'impossible' : 'changed';
  }

  /** From parents to young. */
  private restrictYoung(): Round {
    let round: Round = 'same';
    for (const i of this.live) {
      if (this.ties.dam[i]! < 0 && this.ties.sireStart[i] === this.ties.sireStart[i + 1]) continue;
      const next = this.table.restrict(this.place[i]!, this.fromDam(i), this.fromSires(i));
      if (next === this.place[i]) continue;
      this.place[i] = next;
      if (next === EMPTY_DOMAIN) return 'impossible';
      round = 'changed';
    }
    return round;
  }

  private callsOf(i: number): Float64Array {
    return this.evidence.likelihoods[this.evidence.likelihood[i]!]!;
  }

  private wayOf(child: number): number {
    const sex = this.ties.sex[child];
    if (!this.linked || this.recombines || sex === UNKNOWN) return EITHER;
    return sex === FEMALE ? FIRST : SECOND;
  }

  private gametes(parent: number, way: number): number {
    const domain = this.table.domains[this.place[parent]!]!;
    return way === EITHER ? domain.any : way === FIRST ? domain.first : domain.second;
  }

  private fromDam(i: number): number {
    const mother = this.ties.dam[i]!;
    return mother < 0 ? this.anybody : this.table.domains[this.place[mother]!]!.any;
  }

  private fromSires(i: number): number {
    const { sireStart, sire } = this.ties;
    if (sireStart[i] === sireStart[i + 1]) return this.anybody;
    const way = this.wayOf(i);
    let alleles = 0;
    for (let e = sireStart[i]!; e < sireStart[i + 1]!; e++) {
      if (this.open[e]) alleles |= this.gametes(sire[e]!, way);
    }
    return alleles;
  }
}

/** What a round of narrowing came to; `impossible`: nothing is left for somebody. */
type Round = 'same' | 'changed' | 'impossible';

/** The logarithm, which is mostly that of 1. */
function logOf(p: number): number {
  return p === 1 ? 0 : Math.log(p);
}
