import { FEMALE, MALE, sireCount, type IndexedPedigree } from '../pedigree/index-pedigree.ts';
import {
  isSettled,
  settledCell,
  WILD_DOMAIN,
  type Domain,
  type DomainTable,
  type LocusDomains,
} from './domains.ts';
import type { LocusEvidence } from './evidence.ts';
import { alleleVariable, sexVariable, sireVariable, type Factor } from './factor.ts';

/** A factor with what names it, so that an unchanged one can be told when records change. */
export interface NamedFactor extends Factor {
  readonly name: number;
}

/** A genotype distribution, `[first allele * alleles + second allele]`; unordered pairs stand at first <= second. */
export type Distribution = Float64Array;

/** Animals whose distribution is already known, or follows from the marginals of some factors. */
export interface Reading {
  readonly animals: readonly number[];
  /** Places in `LocusModel.factors` whose marginals `read` needs. */
  readonly needs: readonly number[];
  /** @param marginals - over each needed factor's scope, adding up to 1 */
  readonly read: (marginals: readonly Float64Array[]) => Distribution;
}

/** One locus as a product of tables. Animals left out of `readings` are wild type for certain. */
export interface LocusModel {
  readonly factors: readonly NamedFactor[];
  readonly readings: readonly Reading[];
  /** Natural logarithm of what is settled without a table, plain animals aside. */
  readonly logConstant: number;
}

/** What a parent can hand on: its open variables, and for each of their joint states the chance of every allele. */
interface Giver {
  readonly scope: readonly number[];
  readonly sizes: readonly number[];
  readonly states: readonly number[];
  /** `[way][joint state]` -> chance of each allele. Ways: 0 autosomal or dam, 1 to a daughter, 2 to a son. */
  readonly gives: readonly (readonly Float64Array[])[];
}

/** An animal that hands on alleles which are still open. */
interface OpenAnimal {
  readonly first: readonly number[];
  readonly second: readonly number[];
  readonly giver: Giver;
}

/** Alleles of a bit set. */
function allelesIn(mask: number): number[] {
  const found: number[] = [];
  for (let a = 0; mask >> a !== 0; a++) if ((mask >> a) & 1) found.push(a);
  return found;
}

const NOBODY: readonly number[] = [];

const KINDS = 8;
/** More than there are ordered pairs at any locus, and more than there are looks. */
const PAIRS = 1024;
const LOOKS = 2 ** 31;

/**
 * Writes one locus down as a product of small tables, after what hard evidence rules out has gone.
 *
 * The variables are single alleles: what an animal got from its dam, and from its sire. An animal of which only one
 * genotype is left hands on a known pair, so it parts the family above from the family below. Animals without young (and
 * such settled ones) are no variables: they leave a table over their parents, one for all clutch-mates of the same look.
 * Two orders that nothing can tell apart are one.
 *
 * Cost: a few steps for each animal that is not wild type for certain.
 */
export class LocusModelBuilder {
  private readonly ties: IndexedPedigree;
  private readonly evidence: LocusEvidence;
  private readonly table: DomainTable;
  private readonly place: Int32Array;
  private readonly live: readonly number[];
  private readonly sireOpen: Uint8Array;
  private readonly unrecorded: number;
  private readonly locus: number;
  private readonly k: number;
  private readonly linked: boolean;
  private readonly r: number;

  private readonly factors: NamedFactor[] = [];
  private readonly readings: Reading[] = [];
  private logConstant = 0;
  private readonly open = new Map<number, OpenAnimal>();
  private readonly vectors: Map<number, Float64Array>[] = [new Map(), new Map(), new Map()];
  private readonly settled = new Map<number, Giver>();
  private readonly families = new Map<number, Family>();
  private readonly alone = new Map<
    number,
    { animals: number[]; distribution: Distribution; logTotal: number }
  >();
  private readonly missing: Giver;
  /** Takes what `spread` adds where only its sum is wanted. */
  private readonly scratch: Float64Array;

  constructor(options: {
    ties: IndexedPedigree;
    evidence: LocusEvidence;
    table: DomainTable;
    domains: Pick<LocusDomains, 'place' | 'live'>;
    sireOpen: Uint8Array;
    unrecorded: number;
    locus: number;
  }) {
    this.ties = options.ties;
    this.evidence = options.evidence;
    this.table = options.table;
    this.place = options.domains.place;
    this.live = options.domains.live;
    this.sireOpen = options.sireOpen;
    this.unrecorded = options.unrecorded;
    this.locus = options.locus;
    this.k = options.evidence.alleles.length;
    this.linked = options.evidence.locus.sexLinked === true;
    this.scratch = new Float64Array(this.k * this.k);
    this.r = options.evidence.locus.recombination ?? 0;
    const any = Float64Array.from({ length: this.k }, (_, a) =>
      a === 0 ? 1 - (this.k - 1) * this.unrecorded : this.unrecorded,
    );
    this.missing = { scope: [], sizes: [], states: [], gives: [[any], [any], [any]] };
  }

  build(): LocusModel {
    const { dam, sire, sireStart } = this.ties;
    const { likelihood, likelihoods, prior } = this.evidence;
    const wildSeen = new Float64Array(likelihoods.length);
    const { place, sireOpen } = this;
    for (const i of this.live) {
      if (place[i] === WILD_DOMAIN) {
        const mother = dam[i]!;
        const from = sireStart[i]!;
        const to = sireStart[i + 1]!;
        let plain = mother < 0 ? from === to && prior[i] === 0 : place[mother] === WILD_DOMAIN && from < to;
        for (let e = from; plain && e < to; e++) plain = sireOpen[e] === 0 || place[sire[e]!] === WILD_DOMAIN;
        if (plain) {
          wildSeen[likelihood[i]!]!++;
          continue;
        }
      }
      this.animal(i);
    }
    wildSeen.forEach((count, id) => {
      if (count > 0) this.logConstant += count * Math.log(likelihoods[id]![0]!);
    });
    for (const { animals, distribution, logTotal } of this.alone.values()) {
      this.logConstant += animals.length * logTotal;
      this.readings.push({ animals, needs: [], read: () => distribution });
    }
    for (const family of this.families.values()) this.closeFamily(family);
    return { factors: this.factors, readings: this.readings, logConstant: this.logConstant };
  }

  private domain(animal: number): Domain {
    return this.table.domains[this.place[animal]!]!;
  }

  private isOrdered(animal: number): boolean {
    return this.linked && this.ties.sex[animal] === MALE;
  }

  /** The chance of each allele in what a parent with this ordered pair hands on. */
  private vector(cell: number, way: number): Float64Array {
    const known = this.vectors[way]!.get(cell);
    if (known) return known;
    const [x, y] = [Math.floor(cell / this.k), cell % this.k];
    const fromX = way === 0 ? 0.5 : way === 1 ? 1 - this.r : this.r;
    const vector = new Float64Array(this.k);
    vector[x]! += fromX;
    vector[y]! += 1 - fromX;
    this.vectors[way]!.set(cell, vector);
    return vector;
  }

  private giver(parent: number): Giver {
    if (parent < 0) return this.missing;
    const open = this.open.get(parent);
    if (open) return open.giver;
    const domain = this.domain(parent);
    const cell = settledCell(domain, this.ties.sex[parent]!, this.linked);
    let giver = this.settled.get(cell);
    if (!giver) {
      giver = { scope: [], sizes: [], states: [], gives: [0, 1, 2].map((way) => [this.vector(cell, way)]) };
      this.settled.set(cell, giver);
    }
    return giver;
  }

  /** By which way a sire's alleles reach a child; null where that hangs on the child's open sex. */
  private way(child: number, sire: Giver): number | null {
    if (!this.linked) return 0;
    const sex = this.ties.sex[child];
    if (sex === FEMALE) return 1;
    if (sex === MALE) return 2;
    const [, toDaughters, toSons] = sire.gives;
    const same = toDaughters!.every((vector, at) => vector.every((p, a) => p === toSons![at]![a]));
    return same ? 1 : null;
  }

  private candidates(animal: number): number[] {
    const found: number[] = [];
    for (let e = this.ties.sireStart[animal]!; e < this.ties.sireStart[animal + 1]!; e++) {
      if (this.sireOpen[e]) found.push(e);
    }
    return found;
  }

  private animal(i: number): void {
    const { ties } = this;
    const domain = this.domain(i);
    const count = sireCount(ties, i);
    const quiet = ties.isParent[i] === 0 || isSettled(domain, ties.sex[i]!, this.linked);
    if (ties.dam[i]! < 0 && count === 0) {
      const table = this.founderTable(i);
      if (quiet) this.lone(i, table);
      else this.declare(i, this.isOrdered(i) ? table : this.folded(table));
      return;
    }
    const mother = this.giver(ties.dam[i]!);
    const entries = count > 1 ? this.candidates(i) : count === 1 ? [ties.sireStart[i]!] : NOBODY;
    if (entries.length > 1) {
      const fathers = entries.map((entry) => this.giver(ties.sire[entry]!));
      if (quiet) this.openSire(i, mother, entries, fathers);
      else this.inner(i, mother, entries, fathers);
      return;
    }
    const entry = entries[0] ?? -1;
    const father = this.giver(entry < 0 ? -1 : ties.sire[entry]!);
    if (quiet) this.quiet(i, mother, father, entry);
    else if (mother.scope.length > 0 || father.scope.length > 0) this.inner(i, mother, entries, [father]);
    else {
      // A parent that hangs on nothing open above it is as good as a founder.
      const table = this.bredTable(i, mother, father);
      this.declare(i, this.isOrdered(i) ? table : this.folded(table));
    }
  }

  /** P(pair) times P(calls | pair) of a founder, over what its relatives leave of it. */
  private founderTable(i: number): Float64Array {
    const { pairs } = this.domain(i);
    const likelihood = this.evidence.likelihoods[this.evidence.likelihood[i]!]!;
    return this.evidence.priors[this.evidence.prior[i]!]!.map((p, cell) =>
      pairs[cell] ? p * likelihood[cell]! : 0,
    );
  }

  /** P(pair) times P(calls | pair) of an animal whose parents' pairs are settled. */
  private bredTable(i: number, mother: Giver, father: Giver): Float64Array {
    const table = new Float64Array(this.k * this.k);
    this.spread(i, mother.gives[0]![0]!, father.gives[this.way(i, father) ?? 0]![0]!, table, 1);
    return table;
  }

  /** Adds weight times P(pair | what each parent hands on) times P(calls | pair) to a table; returns what was added. */
  private spread(
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
  private folded(table: Float64Array): Float64Array {
    const { k } = this;
    const folded = new Float64Array(k * k);
    for (let a = 0; a < k; a++)
      for (let b = 0; b < k; b++) folded[Math.min(a, b) * k + Math.max(a, b)]! += table[a * k + b]!;
    return folded;
  }

  /** As it is reported: ordered for a male at a sex-linked locus, else folded; adding up to 1. */
  private reported(i: number, table: Float64Array): Distribution {
    const folded = this.isOrdered(i) ? table : this.folded(table);
    const sum = folded.reduce((a, b) => a + b, 0);
    return folded.map((p) => p / sum);
  }

  /** An animal without open relatives: its distribution is known at once. */
  private lone(i: number, table: Float64Array): void {
    const logTotal = Math.log(table.reduce((a, b) => a + b, 0));
    this.logConstant += logTotal;
    const distribution = this.reported(i, table);
    this.readings.push({ animals: [i], needs: [], read: () => distribution });
  }

  private add(
    name: number,
    scope: readonly number[],
    sizes: readonly number[],
    states: readonly number[],
    table: Float64Array,
  ): number {
    if (scope.length === 0) {
      this.logConstant += Math.log(table[0]!);
      return -1;
    }
    return this.factors.push({ name, scope, sizes, states, table }) - 1;
  }

  /** Opens the variables of an animal that can have these pairs, and adds its own table. */
  private declare(i: number, table: Float64Array): OpenAnimal {
    const { k } = this;
    let firstMask = 0;
    let secondMask = 0;
    for (let cell = 0; cell < k * k; cell++) {
      if (table[cell] === 0) continue;
      firstMask |= 1 << Math.floor(cell / k);
      secondMask |= 1 << (cell % k);
    }
    const first = allelesIn(firstMask);
    const second = allelesIn(secondMask);
    const scope: number[] = [];
    const sizes: number[] = [];
    const states: number[] = [];
    if (first.length > 1) {
      scope.push(alleleVariable(this.locus, i, 0));
      sizes.push(first.length);
      states.push(firstMask);
    }
    if (second.length > 1) {
      scope.push(alleleVariable(this.locus, i, 1));
      sizes.push(second.length);
      states.push(secondMask);
    }
    const cells = first.flatMap((a) => second.map((b) => a * k + b));
    const giver: Giver = {
      scope,
      sizes,
      states,
      gives: (this.linked ? [0, 1, 2] : [0]).map((way) => cells.map((cell) => this.vector(cell, way))),
    };
    const at = this.add(i * KINDS, scope, sizes, states, new Float64Array(cells.map((cell) => table[cell]!)));
    this.readings.push({
      animals: [i],
      needs: at < 0 ? [] : [at],
      read: ([marginal]) => {
        const whole = new Float64Array(k * k);
        cells.forEach((cell, state) => (whole[cell] = marginal ? marginal[state]! : 1));
        return this.reported(i, whole);
      },
    });
    const open = { first, second, giver };
    this.open.set(i, open);
    return open;
  }

  /** A parent whose own parents are open: its two alleles hang on theirs. */
  private inner(i: number, mother: Giver, entries: readonly number[], fathers: readonly Giver[]): void {
    const { pairs } = this.domain(i);
    const likelihood = this.evidence.likelihoods[this.evidence.likelihood[i]!]!;
    const { first, second, giver } = this.declare(
      i,
      likelihood.map((p, cell) => (pairs[cell] ? p : 0)),
    );
    const firstAxis = first.length > 1 ? 1 : 0;
    const axis = (side: 0 | 1): Pick<Giver, 'scope' | 'sizes' | 'states'> => {
      const alleles = side === 0 ? first : second;
      const at = side === 0 ? 0 : firstAxis;
      if (alleles.length < 2) return { scope: [], sizes: [], states: [] };
      return { scope: [giver.scope[at]!], sizes: [giver.sizes[at]!], states: [giver.states[at]!] };
    };
    const own = axis(0);
    this.add(
      i * KINDS + 1,
      [...own.scope, ...mother.scope],
      [...own.sizes, ...mother.sizes],
      [...own.states, ...mother.states],
      new Float64Array(first.flatMap((a) => mother.gives[0]!.map((gives) => gives[a]!))),
    );
    const theirs = axis(1);
    const several = fathers.length > 1;
    fathers.forEach((father, f) => {
      const gives = father.gives[this.way(i, father) ?? 0]!;
      const given = second.flatMap((b) => gives.map((vector) => vector[b]!));
      if (!several) {
        this.add(
          i * KINDS + 2,
          [...theirs.scope, ...father.scope],
          [...theirs.sizes, ...father.sizes],
          [...theirs.states, ...father.states],
          new Float64Array(given),
        );
        return;
      }
      // Only where this candidate is the sire does his table speak: otherwise it is 1.
      this.add(
        entries[f]! * KINDS + 3,
        [sireVariable(i), ...theirs.scope, ...father.scope],
        [fathers.length, ...theirs.sizes, ...father.sizes],
        [0, ...theirs.states, ...father.states],
        Float64Array.from(fathers.flatMap((_, chosen) => (chosen === f ? given : given.map(() => 1)))),
      );
    });
  }

  /** An animal that hands on nothing open, with one possible sire: a table over its parents. */
  private quiet(i: number, mother: Giver, father: Giver, entry: number): void {
    const way = this.way(i, father);
    const sire = entry < 0 ? -1 : this.ties.sire[entry]!;
    if (mother.scope.length === 0 && father.scope.length === 0 && way !== null) {
      const parents = (this.parentKey(this.ties.dam[i]!) + 1) * PAIRS + this.parentKey(sire) + 1;
      const key = parents * LOOKS + this.lookKey(i);
      let known = this.alone.get(key);
      if (!known) {
        const table = this.bredTable(i, mother, father);
        known = {
          animals: [],
          distribution: this.reported(i, table),
          logTotal: Math.log(table.reduce((a, b) => a + b, 0)),
        };
        this.alone.set(key, known);
      }
      known.animals.push(i);
      return;
    }
    if (way === null) {
      this.openSex(i, mother, father);
      return;
    }
    const key = (this.ties.dam[i]! + 1) * 2 ** 24 + sire + 1;
    let family = this.families.get(key);
    if (!family) {
      family = { name: key, mother, father, looks: new Map() };
      this.families.set(key, family);
    }
    const look = this.lookKey(i);
    const same = family.looks.get(look);
    if (same) same.animals.push(i);
    else family.looks.set(look, { way, animals: [i], table: this.lookTable(i, mother, father, way) });
  }

  /** Equal for animals of which nothing but their parents differs. */
  private lookKey(i: number): number {
    const sex = this.linked ? this.ties.sex[i]! : 0;
    return (
      ((this.place[i]! * 2 ** 14 + this.evidence.likelihood[i]!) * 4 + sex) * 2 + this.ties.bredAlone[i]!
    );
  }

  private parentKey(parent: number): number {
    return parent < 0 ? -1 : settledCell(this.domain(parent), this.ties.sex[parent]!, this.linked);
  }

  /** `[dam's joint state][sire's joint state]` -> P(calls of i | them). */
  private lookTable(i: number, mother: Giver, father: Giver, way: number): Float64Array {
    const fromDams = mother.gives[0]!;
    const fromSires = father.gives[way]!;
    const table = new Float64Array(fromDams.length * fromSires.length);
    let state = 0;
    for (const fromDam of fromDams) {
      for (const fromSire of fromSires) table[state++] = this.spread(i, fromDam, fromSire, this.scratch, 1);
    }
    return table;
  }

  private closeFamily({ name, mother, father, looks }: Family): void {
    const product = new Float64Array(mother.gives[0]!.length * father.gives[0]!.length).fill(1);
    for (const { animals, table } of looks.values()) {
      for (let state = 0; state < product.length; state++) product[state]! *= table[state]! ** animals.length;
    }
    const at = this.add(
      name * KINDS + 4,
      [...mother.scope, ...father.scope],
      [...mother.sizes, ...father.sizes],
      [...mother.states, ...father.states],
      product,
    );
    for (const { animals, table, way } of looks.values()) {
      const [i] = animals;
      this.readings.push({
        animals,
        needs: [at],
        read: ([marginal]) => {
          const whole = new Float64Array(this.k * this.k);
          let state = 0;
          for (const fromDam of mother.gives[0]!) {
            for (const fromSire of father.gives[way]!) {
              const p = marginal![state]!;
              if (p > 0) this.spread(i!, fromDam, fromSire, whole, p / table[state]!);
              state++;
            }
          }
          return this.reported(i!, whole);
        },
      });
    }
  }

  /** An animal without young whose sex is open, at a sex-linked locus that speaks about it. */
  private openSex(i: number, mother: Giver, father: Giver): void {
    const states = mother.gives[0]!.flatMap((fromDam) =>
      father.gives[1]!.flatMap((toDaughters, at) => [
        [fromDam, toDaughters] as const,
        [fromDam, father.gives[2]![at]!] as const,
      ]),
    );
    const table = Float64Array.from(states, ([fromDam, fromSire]) =>
      this.spread(i, fromDam, fromSire, this.scratch, 1),
    );
    const at = this.add(
      i * KINDS + 5,
      [...mother.scope, ...father.scope, sexVariable(i)],
      [...mother.sizes, ...father.sizes, 2],
      [...mother.states, ...father.states, 0],
      table,
    );
    this.readings.push({
      animals: [i],
      needs: [at],
      read: ([marginal]) => {
        const whole = new Float64Array(this.k * this.k);
        states.forEach(([fromDam, fromSire], state) => {
          const p = marginal![state]!;
          if (p > 0) this.spread(i, fromDam, fromSire, whole, p / table[state]!);
        });
        return this.reported(i, whole);
      },
    });
  }

  /** An animal that hands on nothing open, with several possible sires: for each of them a table that speaks if it is he. */
  private openSire(i: number, mother: Giver, entries: readonly number[], fathers: readonly Giver[]): void {
    const parts = fathers.map((father, f) => {
      const way = this.way(i, father);
      const sexes = way === null ? [1, 2] : [way];
      const states = mother.gives[0]!.flatMap((fromDam) =>
        father.gives[0]!.flatMap((_, at) => sexes.map((w) => [fromDam, father.gives[w]![at]!] as const)),
      );
      const table = Float64Array.from(states, ([fromDam, fromSire]) =>
        this.spread(i, fromDam, fromSire, this.scratch, 1),
      );
      const sexAxis = way === null;
      const factor = this.add(
        entries[f]! * KINDS + 6,
        [sireVariable(i), ...mother.scope, ...father.scope, ...(sexAxis ? [sexVariable(i)] : [])],
        [fathers.length, ...mother.sizes, ...father.sizes, ...(sexAxis ? [2] : [])],
        [0, ...mother.states, ...father.states, ...(sexAxis ? [0] : [])],
        Float64Array.from(
          fathers.flatMap((_, chosen) =>
            chosen === f ? [...table] : new Array<number>(table.length).fill(1),
          ),
        ),
      );
      return { factor, states, table };
    });
    this.readings.push({
      animals: [i],
      needs: parts.map(({ factor }) => factor),
      read: (marginals) => {
        const whole = new Float64Array(this.k * this.k);
        parts.forEach(({ states, table }, f) => {
          const start = f * table.length;
          states.forEach(([fromDam, fromSire], state) => {
            const p = marginals[f]![start + state]!;
            if (p > 0) this.spread(i, fromDam, fromSire, whole, p / table[state]!);
          });
        });
        return this.reported(i, whole);
      },
    });
  }
}

/** Clutch-mates (and later clutches) of the same parents that hand on nothing open. */
interface Family {
  readonly name: number;
  readonly mother: Giver;
  readonly father: Giver;
  readonly looks: Map<
    number,
    { readonly way: number; readonly animals: number[]; readonly table: Float64Array }
  >;
}
