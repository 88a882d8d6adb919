import { MALE } from '../pedigree/index-pedigree.ts';

/** Which ordered pairs (from dam, from sire) an animal can still have at a locus. Interned: equal sets are one object. */
export interface Domain {
  readonly place: number;
  /** 1 where the pair is possible, `[first * alleles + second]`. */
  readonly pairs: Uint8Array;
  /** Bit sets of the alleles that can stand first, second, and on either side. */
  readonly first: number;
  readonly second: number;
  readonly any: number;
  /** The pair's cell, canonical, where only one unordered genotype is left; else -1. */
  readonly genotype: number;
  /** The pair's cell where only one ordered pair is left; else -1. */
  readonly pair: number;
}

/** Through which of a parent's places an allele may have come. */
export const EITHER = 0;

export const FIRST = 1;

export const SECOND = 2;

/**
 * The domains met at one locus, and the steps between them, each worked out once. Place 0 is the empty domain, place 1 is
 * wild type for certain.
 */
export class DomainTable {
  readonly domains: Domain[] = [];
  private readonly alleles: number;
  private readonly places = new Map<string, number>();
  private readonly crossed = new Map<number, Map<number, number>>();
  private readonly sieved: Map<number, number>[] = [new Map(), new Map(), new Map()];
  private readonly restricted = new Map<number, Map<number, number>>();

  constructor(alleles: number) {
    this.alleles = alleles;
    this.intern(() => false);
    this.intern((a, b) => a === 0 && b === 0);
  }

  private intern(possible: (first: number, second: number) => boolean): number {
    const k = this.alleles;
    const pairs = new Uint8Array(k * k);
    let first = 0;
    let second = 0;
    const genotypes = new Set<number>();
    const cells: number[] = [];
    for (let a = 0; a < k; a++) {
      for (let b = 0; b < k; b++) {
        if (!possible(a, b)) continue;
        pairs[a * k + b] = 1;
        first |= 1 << a;
        second |= 1 << b;
        genotypes.add(Math.min(a, b) * k + Math.max(a, b));
        cells.push(a * k + b);
      }
    }
    const key = cells.join();
    const known = this.places.get(key);
    if (known !== undefined) return known;
    const place = this.domains.length;
    this.places.set(key, place);
    this.domains.push({
      place,
      pairs,
      first,
      second,
      any: first | second,
      genotype: genotypes.size === 1 ? [...genotypes][0]! : -1,
      pair: cells.length === 1 ? cells[0]! : -1,
    });
    return place;
  }

  /** All pairs that two tables of probabilities leave possible. */
  fromTables(a: Float64Array, b: Float64Array): number {
    return this.intern((x, y) => a[x * this.alleles + y]! > 0 && b[x * this.alleles + y]! > 0);
  }

  /** A young animal's pairs: one allele of each set, as far as the calls allow. */
  cross(first: number, second: number, likelihoodPlace: number, likelihood: Float64Array): number {
    let known = this.crossed.get(likelihoodPlace);
    if (!known) this.crossed.set(likelihoodPlace, (known = new Map()));
    const key = first * 2 ** 24 + second;
    let place = known.get(key);
    if (place === undefined) {
      place = this.intern((a, b) =>
        (first >> a) & 1 && (second >> b) & 1 ? likelihood[a * this.alleles + b]! > 0 : false,
      );
      known.set(key, place);
    }
    return place;
  }

  /** What is left of a domain where only these alleles can stand first, and those second. */
  restrict(place: number, first: number, second: number): number {
    const domain = this.domains[place]!;
    if ((domain.first & ~first) === 0 && (domain.second & ~second) === 0) return place;
    let known = this.restricted.get(place);
    if (!known) this.restricted.set(place, (known = new Map()));
    const key = first * 2 ** 24 + second;
    let left = known.get(key);
    if (left === undefined) {
      left = this.intern(
        (a, b) =>
          domain.pairs[a * this.alleles + b]! === 1 && ((first >> a) & 1) === 1 && ((second >> b) & 1) === 1,
      );
      known.set(key, left);
    }
    return left;
  }

  /** What is left of a parent's domain when it must have given one of these alleles, from the named place. */
  sieve(place: number, given: number, from: number): number {
    const domain = this.domains[place]!;
    const could = from === EITHER ? domain.any : from === FIRST ? domain.first : domain.second;
    if ((could & ~given) === 0) return place;
    const known = this.sieved[from]!;
    const key = place * 2 ** 24 + given;
    let left = known.get(key);
    if (left === undefined) {
      left = this.intern(
        (a, b) =>
          domain.pairs[a * this.alleles + b]! === 1 &&
          ((from !== SECOND && ((given >> a) & 1) === 1) || (from !== FIRST && ((given >> b) & 1) === 1)),
      );
      known.set(key, left);
    }
    return left;
  }
}

export const WILD_DOMAIN = 1;

export const EMPTY_DOMAIN = 0;

/** Whether young see one and the same pair of this animal, whatever is still open about it. */
export function isSettled(domain: Domain, sex: number, linked: boolean): boolean {
  return linked && sex === MALE ? domain.pair >= 0 : domain.genotype >= 0;
}

/** The cell of the pair that young of a settled animal see. */
export function settledCell(domain: Domain, sex: number, linked: boolean): number {
  return linked && sex === MALE ? domain.pair : domain.genotype;
}

/** Alleles of a bit set. */
export function allelesIn(mask: number): number[] {
  const found: number[] = [];
  for (let a = 0; mask >> a !== 0; a++) if ((mask >> a) & 1) found.push(a);
  return found;
}
