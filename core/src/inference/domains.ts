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
 *
 */
export function narrowDomains({
  ties,
  evidence,
  table,
  sireOpen,
  unrecorded,
  since,
}: Narrowing): LocusDomains {
  const { order, dam, sire, sireStart, sex } = ties;
  const { prior, likelihood, priors, likelihoods, locus } = evidence;
  const place = since ? since.domains.place.slice() : new Int32Array(ties.size);
  const plain = since ? since.domains.plain.slice() : new Uint8Array(ties.size);
  let plainLog = since?.domains.plainLog ?? 0;
  const open = sireOpen.slice();
  const anybody = unrecorded > 0 ? 2 ** evidence.alleles.length - 1 : 1;
  const r = locus.recombination ?? 0;
  const linked = locus.sexLinked === true;
  const founders = new Map<number, number>();

  const wayOf = (child: number): number =>
    !linked || r > 0 || sex[child] === UNKNOWN ? EITHER : sex[child] === FEMALE ? FIRST : SECOND;
  const gametes = (parent: number, way: number): number => {
    const domain = table.domains[place[parent]!]!;
    return way === EITHER ? domain.any : way === FIRST ? domain.first : domain.second;
  };
  const fromSires = (i: number): number => {
    const way = wayOf(i);
    let alleles = 0;
    for (let e = sireStart[i]!; e < sireStart[i + 1]!; e++) if (open[e]) alleles |= gametes(sire[e]!, way);
    return alleles;
  };

  const answer = (possible: boolean): LocusDomains => ({
    place,
    plain,
    plainLog,
    live,
    sireOpen: open,
    possible,
  });

  // First down the generations. Most animals are wild type of wild type parents: they are never looked at again.
  const live: number[] = [];
  const among = since?.among ?? order;
  for (let at = 0; at < among.length; at++) {
    const i = among[at]!;
    const from = sireStart[i]!;
    const to = sireStart[i + 1]!;
    const mother = dam[i]!;
    const calls = likelihoods[likelihood[i]!]!;
    if (plain[i] === 1) {
      plainLog -= logOf(calls[0]!);
      plain[i] = 0;
    }
    if (mother < 0 && from === to) {
      if (prior[i] === 0 && calls[0]! > 0) {
        place[i] = WILD_DOMAIN;
        plain[i] = 1;
        plainLog += logOf(calls[0]!);
        continue;
      }
      const key = prior[i]! * 2 ** 24 + likelihood[i]!;
      let known = founders.get(key);
      if (known === undefined) founders.set(key, (known = table.fromTables(priors[prior[i]!]!, calls)));
      place[i] = known;
    } else {
      const first = mother < 0 ? anybody : table.domains[place[mother]!]!.any;
      const second = to > from ? fromSires(i) : anybody;
      if (first === 1 && second === 1 && calls[0]! > 0) {
        place[i] = WILD_DOMAIN;
        plain[i] = 1;
        plainLog += logOf(calls[0]!);
        continue;
      }
      place[i] = table.cross(first, second, likelihood[i]!, calls);
    }
    live.push(i);
    if (place[i] === EMPTY_DOMAIN) return answer(false);
  }

  const narrowParent = (parent: number, given: number, way: number): boolean => {
    const left = table.sieve(place[parent]!, given, way);
    if (left === place[parent]) return false;
    place[parent] = left;
    return true;
  };
  for (let changed = true; changed;) {
    changed = false;
    for (let at = live.length - 1; at >= 0; at--) {
      const i = live[at]!;
      const from = sireStart[i]!;
      const to = sireStart[i + 1]!;
      const mother = dam[i]!;
      const own = table.domains[place[i]!]!;
      if (mother >= 0 && narrowParent(mother, own.first, EITHER)) {
        changed = true;
        if (place[mother] === EMPTY_DOMAIN) return answer(false);
      }
      if (from === to) continue;
      const way = wayOf(i);
      let left = -1;
      let count = 0;
      for (let e = from; e < to; e++) {
        if (open[e] && to - from > 1 && (gametes(sire[e]!, way) & own.second) === 0) {
          open[e] = 0;
          changed = true;
        }
        if (open[e]) {
          left = e;
          count++;
        }
      }
      if (count === 0) return answer(false);
      if (count === 1 && narrowParent(sire[left]!, own.second, way)) {
        changed = true;
        if (place[sire[left]!] === EMPTY_DOMAIN) return answer(false);
      }
    }
    if (!changed) break;
    changed = false;
    for (const i of live) {
      const from = sireStart[i]!;
      const mother = dam[i]!;
      if (mother < 0 && from === sireStart[i + 1]) continue;
      const first = mother < 0 ? anybody : table.domains[place[mother]!]!.any;
      const second = sireStart[i + 1]! > from ? fromSires(i) : anybody;
      const next = table.restrict(place[i]!, first, second);
      if (next === place[i]) continue;
      place[i] = next;
      changed = true;
      if (next === EMPTY_DOMAIN) return answer(false);
    }
  }
  return answer(true);
}

/** The logarithm, which is mostly that of 1. */
function logOf(p: number): number {
  return p === 1 ? 0 : Math.log(p);
}
