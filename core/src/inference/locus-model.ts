import { sireCount, type IndexedPedigree } from '../pedigree/index-pedigree.ts';
import { allelesIn, isSettled, settledCell, WILD_DOMAIN, type DomainTable } from './domain-table.ts';
import { type LocusDomains } from './domains.ts';
import type { LocusEvidence } from './evidence.ts';
import { alleleVariable, sexVariable, sireVariable } from './factor.ts';
import type { Distribution, LocusModel, NamedFactor, Reading } from './model.ts';
import { PairTables } from './pair-tables.ts';
import { Transmission, type ParentTransmission, type OpenAnimal } from './transmission.ts';

const NO_SIRES: readonly number[] = [];

const KINDS = 8;
/** Radices of the keys below: more than there are ordered pairs at any locus, and more than there are classes. */
const PAIRS = 1024;
const CLASSES = 2 ** 31;

/**
 * Writes one locus as a product of small tables (factors), after what hard evidence rules out has gone.
 *
 * The variables are single alleles: what an animal got from its dam, and from its sire. An animal of which only one
 * genotype is left transmits a known pair, so it separates the family above from the family below. Leaves (animals without
 * young, and such settled ones) are no variables: they leave a table over their parents, one for all clutch-mates of one class (same
 * domain, calls and sex).
 * Two orders of a pair that nothing distinguishes are folded into one.
 *
 * Cost: a few steps for each animal that is not wild type for certain.
 */
export class LocusModelBuilder {
  private readonly ties: IndexedPedigree;
  private readonly evidence: LocusEvidence;
  private readonly pairs: PairTables;
  private readonly place: Int32Array;
  private readonly live: readonly number[];
  private readonly sireOpen: Uint8Array;
  private readonly locus: number;
  private readonly k: number;
  private readonly linked: boolean;
  private readonly transmission: Transmission;

  private readonly factors: NamedFactor[] = [];
  private readonly readings: Reading[] = [];
  private logConstant = 0;
  private readonly open = new Map<number, OpenAnimal>();
  private readonly families = new Map<number, Family>();
  private readonly leavesOfKnownPairs = new Map<
    number,
    { animals: number[]; distribution: Distribution; logTotal: number }
  >();
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
    this.pairs = new PairTables({ ...options, place: options.domains.place });
    this.place = options.domains.place;
    this.live = options.domains.live;
    this.sireOpen = options.sireOpen;
    this.locus = options.locus;
    this.k = options.evidence.alleles.length;
    this.linked = options.evidence.locus.sexLinked === true;
    this.scratch = new Float64Array(this.k * this.k);
    this.transmission = new Transmission(options.evidence, options.unrecorded);
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
    for (const { animals, distribution, logTotal } of this.leavesOfKnownPairs.values()) {
      this.logConstant += animals.length * logTotal;
      this.readings.push({ animals, needs: [], read: () => distribution });
    }
    for (const family of this.families.values()) this.closeFamily(family);
    return { factors: this.factors, readings: this.readings, logConstant: this.logConstant };
  }

  private transmissionOf(parent: number): ParentTransmission {
    if (parent < 0) return this.transmission.missing;
    return (
      this.open.get(parent)?.transmission ??
      this.transmission.ofPair(settledCell(this.pairs.domain(parent), this.ties.sex[parent]!, this.linked))
    );
  }

  /** Of an animal whose parents' pairs are settled. */
  private bredTable(i: number, mother: ParentTransmission, father: ParentTransmission): Float64Array {
    return this.pairs.ofBred(
      i,
      mother.alleleChances[0]![0]!,
      father.alleleChances[this.way(i, father) ?? 0]![0]!,
    );
  }

  private way(child: number, sire: ParentTransmission): number | null {
    return this.transmission.way(this.ties.sex[child]!, sire);
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
    const domain = this.pairs.domain(i);
    const count = sireCount(ties, i);
    const isLeaf = ties.isParent[i] === 0 || isSettled(domain, ties.sex[i]!, this.linked);
    if (ties.dam[i]! < 0 && count === 0) {
      const table = this.pairs.ofFounder(i);
      if (isLeaf) this.isolated(i, table);
      else this.declare(i, this.pairs.isOrdered(i) ? table : this.pairs.folded(table));
      return;
    }
    const mother = this.transmissionOf(ties.dam[i]!);
    const entries = count > 1 ? this.candidates(i) : count === 1 ? [ties.sireStart[i]!] : NO_SIRES;
    if (entries.length > 1) {
      const fathers = entries.map((entry) => this.transmissionOf(ties.sire[entry]!));
      if (isLeaf) this.openSire(i, mother, entries, fathers);
      else this.inner(i, mother, entries, fathers);
      return;
    }
    const entry = entries[0] ?? -1;
    const father = this.transmissionOf(entry < 0 ? -1 : ties.sire[entry]!);
    if (isLeaf) this.leaf(i, mother, father, entry);
    else if (mother.scope.length > 0 || father.scope.length > 0) this.inner(i, mother, entries, [father]);
    else {
      // A parent that depends on nothing open above it is as good as a founder.
      const table = this.bredTable(i, mother, father);
      this.declare(i, this.pairs.isOrdered(i) ? table : this.pairs.folded(table));
    }
  }

  /** An isolated animal, without open relatives: its distribution is known at once. */
  private isolated(i: number, table: Float64Array): void {
    const logTotal = Math.log(table.reduce((a, b) => a + b, 0));
    this.logConstant += logTotal;
    const distribution = this.pairs.reported(i, table);
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
    const transmission = this.transmission.ofVariables({ scope, sizes, states }, cells);
    const at = this.add(i * KINDS, scope, sizes, states, new Float64Array(cells.map((cell) => table[cell]!)));
    this.readings.push({
      animals: [i],
      needs: at < 0 ? [] : [at],
      read: ([marginal]) => {
        const whole = new Float64Array(k * k);
        cells.forEach((cell, state) => (whole[cell] = marginal ? marginal[state]! : 1));
        return this.pairs.reported(i, whole);
      },
    });
    const open = { first, second, transmission };
    this.open.set(i, open);
    return open;
  }

  /** A parent whose own parents are open: its two alleles depend on theirs. */
  private inner(
    i: number,
    mother: ParentTransmission,
    entries: readonly number[],
    fathers: readonly ParentTransmission[],
  ): void {
    const { pairs } = this.pairs.domain(i);
    const likelihood = this.evidence.likelihoods[this.evidence.likelihood[i]!]!;
    const { first, second, transmission } = this.declare(
      i,
      likelihood.map((p, cell) => (pairs[cell] ? p : 0)),
    );
    const firstAxis = first.length > 1 ? 1 : 0;
    const axis = (side: 0 | 1): Pick<ParentTransmission, 'scope' | 'sizes' | 'states'> => {
      const alleles = side === 0 ? first : second;
      const at = side === 0 ? 0 : firstAxis;
      if (alleles.length < 2) return { scope: [], sizes: [], states: [] };
      return {
        scope: [transmission.scope[at]!],
        sizes: [transmission.sizes[at]!],
        states: [transmission.states[at]!],
      };
    };
    const own = axis(0);
    this.add(
      i * KINDS + 1,
      [...own.scope, ...mother.scope],
      [...own.sizes, ...mother.sizes],
      [...own.states, ...mother.states],
      new Float64Array(first.flatMap((a) => mother.alleleChances[0]!.map((vector) => vector[a]!))),
    );
    const theirs = axis(1);
    const several = fathers.length > 1;
    fathers.forEach((father, f) => {
      const alleleChances = father.alleleChances[this.way(i, father) ?? 0]!;
      const given = second.flatMap((b) => alleleChances.map((vector) => vector[b]!));
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
      // His table counts only where this candidate is the sire: otherwise it is 1.
      this.add(
        entries[f]! * KINDS + 3,
        [sireVariable(i), ...theirs.scope, ...father.scope],
        [fathers.length, ...theirs.sizes, ...father.sizes],
        [0, ...theirs.states, ...father.states],
        Float64Array.from(fathers.flatMap((_, chosen) => (chosen === f ? given : given.map(() => 1)))),
      );
    });
  }

  /** A leaf with one possible sire: a table over its parents. */
  private leaf(i: number, mother: ParentTransmission, father: ParentTransmission, entry: number): void {
    const way = this.way(i, father);
    const sire = entry < 0 ? -1 : this.ties.sire[entry]!;
    if (mother.scope.length === 0 && father.scope.length === 0 && way !== null) {
      const parents = (this.parentKey(this.ties.dam[i]!) + 1) * PAIRS + this.parentKey(sire) + 1;
      const key = parents * CLASSES + this.classKey(i);
      let known = this.leavesOfKnownPairs.get(key);
      if (!known) {
        const table = this.bredTable(i, mother, father);
        known = {
          animals: [],
          distribution: this.pairs.reported(i, table),
          logTotal: Math.log(table.reduce((a, b) => a + b, 0)),
        };
        this.leavesOfKnownPairs.set(key, known);
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
      family = { name: key, mother, father, classes: new Map() };
      this.families.set(key, family);
    }
    const own = this.classKey(i);
    const same = family.classes.get(own);
    if (same) same.animals.push(i);
    else family.classes.set(own, { way, animals: [i], table: this.classTable(i, mother, father, way) });
  }

  /** The class of a leaf: equal for animals that differ in nothing but their parents. */
  private classKey(i: number): number {
    const sex = this.linked ? this.ties.sex[i]! : 0;
    return (
      ((this.place[i]! * 2 ** 14 + this.evidence.likelihood[i]!) * 4 + sex) * 2 + this.ties.bredAlone[i]!
    );
  }

  private parentKey(parent: number): number {
    return parent < 0 ? -1 : settledCell(this.pairs.domain(parent), this.ties.sex[parent]!, this.linked);
  }

  /** `[dam's joint state][sire's joint state]` -> P(calls of i | them). */
  private classTable(
    i: number,
    mother: ParentTransmission,
    father: ParentTransmission,
    way: number,
  ): Float64Array {
    const fromDams = mother.alleleChances[0]!;
    const fromSires = father.alleleChances[way]!;
    const table = new Float64Array(fromDams.length * fromSires.length);
    let state = 0;
    for (const fromDam of fromDams) {
      for (const fromSire of fromSires)
        table[state++] = this.pairs.spread(i, fromDam, fromSire, this.scratch, 1);
    }
    return table;
  }

  private closeFamily({ name, mother, father, classes }: Family): void {
    const product = new Float64Array(mother.alleleChances[0]!.length * father.alleleChances[0]!.length).fill(
      1,
    );
    for (const { animals, table } of classes.values()) {
      for (let state = 0; state < product.length; state++) product[state]! *= table[state]! ** animals.length;
    }
    const at = this.add(
      name * KINDS + 4,
      [...mother.scope, ...father.scope],
      [...mother.sizes, ...father.sizes],
      [...mother.states, ...father.states],
      product,
    );
    for (const { animals, table, way } of classes.values()) {
      const [i] = animals;
      this.readings.push({
        animals,
        needs: [at],
        read: ([marginal]) => {
          const whole = new Float64Array(this.k * this.k);
          let state = 0;
          for (const fromDam of mother.alleleChances[0]!) {
            for (const fromSire of father.alleleChances[way]!) {
              const p = marginal![state]!;
              if (p > 0) this.pairs.spread(i!, fromDam, fromSire, whole, p / table[state]!);
              state++;
            }
          }
          return this.pairs.reported(i!, whole);
        },
      });
    }
  }

  /** A leaf whose sex is open, at a sex-linked locus that is evidence of it. */
  private openSex(i: number, mother: ParentTransmission, father: ParentTransmission): void {
    const states = mother.alleleChances[0]!.flatMap((fromDam) =>
      father.alleleChances[1]!.flatMap((toDaughters, at) => [
        [fromDam, toDaughters] as const,
        [fromDam, father.alleleChances[2]![at]!] as const,
      ]),
    );
    const table = Float64Array.from(states, ([fromDam, fromSire]) =>
      this.pairs.spread(i, fromDam, fromSire, this.scratch, 1),
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
          if (p > 0) this.pairs.spread(i, fromDam, fromSire, whole, p / table[state]!);
        });
        return this.pairs.reported(i, whole);
      },
    });
  }

  /** A leaf with several candidate sires: for each of them a table that counts only where he is the sire. */
  private openSire(
    i: number,
    mother: ParentTransmission,
    entries: readonly number[],
    fathers: readonly ParentTransmission[],
  ): void {
    const parts = fathers.map((father, f) => {
      const way = this.way(i, father);
      const sexes = way === null ? [1, 2] : [way];
      const states = mother.alleleChances[0]!.flatMap((fromDam) =>
        father.alleleChances[0]!.flatMap((_, at) =>
          sexes.map((w) => [fromDam, father.alleleChances[w]![at]!] as const),
        ),
      );
      const table = Float64Array.from(states, ([fromDam, fromSire]) =>
        this.pairs.spread(i, fromDam, fromSire, this.scratch, 1),
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
            if (p > 0) this.pairs.spread(i, fromDam, fromSire, whole, p / table[state]!);
          });
        });
        return this.pairs.reported(i, whole);
      },
    });
  }
}

/** The leaves of one pair of parents: clutch-mates, and later clutches. */
interface Family {
  readonly name: number;
  readonly mother: ParentTransmission;
  readonly father: ParentTransmission;
  readonly classes: Map<
    number,
    { readonly way: number; readonly animals: number[]; readonly table: Float64Array }
  >;
}
