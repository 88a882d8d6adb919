import type { CandidateSires } from './family.ts';
import { axesOf, sexVariable, sireVariable, type Axes } from './factor.ts';
import type { LocusTables } from './locus-tables.ts';
import type { Distribution, Need } from './model.ts';
import { FACTOR_KINDS, type ModelParts } from './model-parts.ts';
import { keepAxes, variablesThatMatter } from './idle-axes.ts';
import { addCandidateTables } from './sire-factors.ts';
import { forEachGamete, WAYS, type ParentTransmission } from './transmission.ts';

/** Radices of the keys below: more than there are ordered pairs at any locus, and more than there are classes. */
const PAIRS = 1024;
const CLASSES = 2 ** 31;

/**
 * The factors of leaves: animals without young, and such whose pair is settled. They are no variables, and leave a table over
 * their parents' alleles, one for all clutch-mates of one class (same domain, calls and sex).
 */
export class LeafFactors {
  private readonly tables: LocusTables;
  private readonly parts: ModelParts;
  private readonly families = new Map<number, Leaves>();
  private readonly ofSettledPairs = new Map<
    number,
    { animals: number[]; distribution: Distribution; logTotal: number }
  >();
  /** Takes what `spread` adds where only its sum is wanted. */
  private readonly scratch: Float64Array;

  constructor(tables: LocusTables, parts: ModelParts) {
    this.tables = tables;
    this.parts = parts;
    this.scratch = new Float64Array(tables.cells);
  }

  /** Writes the factors of the families, once all leaves are added. */
  close(): void {
    for (const { animals, distribution, logTotal } of this.ofSettledPairs.values()) {
      this.parts.logConstant += animals.length * logTotal;
      this.parts.readings.push({ animals, needs: [], read: () => distribution });
    }
    for (const family of this.families.values()) this.closeFamily(family);
  }

  /** A leaf with one possible sire: a table over its parents. */
  add(i: number, mother: ParentTransmission, father: ParentTransmission, entry: number): void {
    const { ties } = this.tables;
    const way = this.tables.way(i, father);
    const sire = entry < 0 ? -1 : ties.sire[entry]!;
    if (way === null) this.addWithOpenSex(i, mother, father);
    else if (mother.scope.length === 0 && father.scope.length === 0)
      this.addOfSettled(i, mother, father, sire);
    else {
      const key = (ties.dam[i]! + 1) * 2 ** 24 + sire + 1;
      let family = this.families.get(key);
      if (!family) {
        family = { name: key, mother, father, classes: new Map(), scope: new Set() };
        this.families.set(key, family);
      }
      const own = this.classKey(i);
      const same = family.classes.get(own);
      if (same) same.animals.push(i);
      else {
        const table = this.chances(i, mother, father, WAYS[way]!);
        family.classes.set(own, { way, animals: [i], table });
        const scope = variablesThatMatter({
          scope: [...mother.scope, ...father.scope],
          sizes: [...mother.sizes, ...father.sizes],
          table,
        });
        for (const variable of scope) family.scope.add(variable);
        this.parts.speakOf(scope);
        this.parts.need([...mother.blocks, ...father.blocks], table.length);
      }
    }
  }

  /** A leaf whose parents' pairs are settled: its distribution is known at once. */
  private addOfSettled(
    i: number,
    mother: ParentTransmission,
    father: ParentTransmission,
    sire: number,
  ): void {
    const parents = (this.parentKey(this.tables.ties.dam[i]!) + 1) * PAIRS + this.parentKey(sire) + 1;
    const key = parents * CLASSES + this.classKey(i);
    let known = this.ofSettledPairs.get(key);
    if (!known) {
      const table = this.tables.bredTable(i, mother, father);
      known = {
        animals: [],
        distribution: this.tables.pairs.reported(i, table),
        logTotal: Math.log(table.reduce((a, b) => a + b, 0)),
      };
      this.ofSettledPairs.set(key, known);
    }
    known.animals.push(i);
  }

  /** The class of a leaf: equal for animals that differ in nothing but their parents. */
  private classKey(i: number): number {
    const { ties, place, evidence, linked } = this.tables;
    const sex = linked ? ties.sex[i]! : 0;
    return ((place[i]! * 2 ** 14 + evidence.likelihood[i]!) * 4 + sex) * 2 + ties.bredAlone[i]!;
  }

  private parentKey(parent: number): number {
    return parent < 0 ? -1 : this.tables.settledCell(parent);
  }

  /** P(calls of i) for each joint state of its parents, and each of these ways within it. */
  private chances(
    i: number,
    mother: ParentTransmission,
    father: ParentTransmission,
    ways: readonly number[],
  ): Float64Array {
    const table = new Float64Array(
      mother.alleleChances[0]!.length * father.alleleChances[0]!.length * ways.length,
    );
    forEachGamete(mother, father, ways, (fromDam, fromSire, state) => {
      table[state] = this.tables.pairs.spread(i, fromDam, fromSire, this.scratch, 1);
    });
    return table;
  }

  /** Adds to `whole` what of a marginal over the same states falls on each pair of i. @param start - its first state */
  private gather(
    i: number,
    { mother, father, ways, table }: Gathered,
    marginal: Float64Array,
    whole: Float64Array,
    start = 0,
  ): void {
    forEachGamete(mother, father, ways, (fromDam, fromSire, state) => {
      const p = marginal[start + state]!;
      if (p > 0) this.tables.pairs.spread(i, fromDam, fromSire, whole, p / table[state]!);
    });
  }

  private closeFamily({ name, mother, father, classes, scope }: Leaves): void {
    const product = new Float64Array(mother.alleleChances[0]!.length * father.alleleChances[0]!.length).fill(
      1,
    );
    for (const { animals, table } of classes.values()) {
      for (let state = 0; state < product.length; state++) product[state]! *= table[state]! ** animals.length;
    }
    const whole = { name: name * FACTOR_KINDS + 4, ...axesOf(mother, father), table: product };
    const isWhole = scope.size === whole.scope.length;
    const place = this.parts.add(isWhole ? whole : keepAxes(whole, scope));
    const need: Need = isWhole ? [{ factor: place }] : [...mother.blocks, ...father.blocks];
    for (const { animals, table, way } of classes.values()) {
      const i = animals[0]!;
      this.parts.readings.push({
        animals,
        needs: [need],
        read: ([marginal]) => {
          const whole = new Float64Array(this.tables.cells);
          this.gather(i, { mother, father, ways: WAYS[way]!, table }, marginal!, whole);
          return this.tables.pairs.reported(i, whole);
        },
      });
    }
  }

  /** A leaf whose sex is open, at a sex-linked locus that is evidence of it. */
  private addWithOpenSex(i: number, mother: ParentTransmission, father: ParentTransmission): void {
    const table = this.chances(i, mother, father, EITHER_SEX);
    const sex = sexAxis(i);
    this.parts.need([...mother.blocks, ...father.blocks], table.length);
    const need = this.parts.addReduced(
      { name: i * FACTOR_KINDS + 5, ...axesOf(mother, father, sex), table },
      [...mother.blocks, ...father.blocks, ...sex.blocks],
    );
    this.parts.readings.push({
      animals: [i],
      needs: [need],
      read: ([marginal]) => {
        const whole = new Float64Array(this.tables.cells);
        this.gather(i, { mother, father, ways: EITHER_SEX, table }, marginal!, whole);
        return this.tables.pairs.reported(i, whole);
      },
    });
  }

  /** A leaf with several candidate sires who do not all transmit alike. */
  addWithOpenSire(i: number, mother: ParentTransmission, candidates: CandidateSires): void {
    const groups = candidates.groups.map(({ entry, father, places }) => {
      const way = this.tables.way(i, father);
      const ways = way === null ? EITHER_SEX : WAYS[way]!;
      const table = this.chances(i, mother, father, ways);
      const sex = way === null ? sexAxis(i) : NO_AXIS;
      return {
        of: { mother, father, ways, table },
        blocks: [...mother.blocks, ...father.blocks, ...sex.blocks],
        table: {
          name: entry * FACTOR_KINDS + 6,
          ...axesOf(mother, father, sex),
          table,
          candidates: places,
        },
      };
    });
    const found = addCandidateTables(
      this.parts,
      { sire: sireVariable(i), candidates: candidates.count, name: candidates.name },
      groups.map(({ table }) => table),
    );
    for (const { blocks, table } of groups) this.parts.need(blocks, table.table.length * candidates.count);
    this.parts.readings.push({
      animals: [i],
      needs: groups.map(({ blocks }, g) =>
        found[g]! >= 0 ? [{ factor: found[g]! }] : [{ tie: sireVariable(i) }, ...blocks],
      ),
      read: (marginals) => {
        const whole = new Float64Array(this.tables.cells);
        groups.forEach(({ of, table }, g) => {
          for (const place of table.candidates)
            this.gather(i, of, marginals[g]!, whole, place * of.table.length);
        });
        return this.tables.pairs.reported(i, whole);
      },
    });
  }
}

/** The axis of an animal's open sex. */
function sexAxis(i: number): Axes & Pick<ParentTransmission, 'blocks'> {
  const tie = sexVariable(i);
  return { scope: [tie], sizes: [2], states: [0], blocks: [{ tie }] };
}
const NO_AXIS: ReturnType<typeof sexAxis> = { scope: [], sizes: [], states: [], blocks: [] };

/** The ways of a daughter and of a son. */
const EITHER_SEX: readonly number[] = [1, 2];

/** What a table over two parents' states was made from. */
interface Gathered {
  readonly mother: ParentTransmission;
  readonly father: ParentTransmission;
  readonly ways: readonly number[];
  readonly table: Float64Array;
}

/** The leaves of one pair of parents: clutch-mates, and later clutches. */
interface Leaves {
  readonly name: number;
  readonly mother: ParentTransmission;
  readonly father: ParentTransmission;
  /** The variables that its table depends on. */
  readonly scope: Set<number>;
  readonly classes: Map<
    number,
    { readonly way: number; readonly animals: number[]; readonly table: Float64Array }
  >;
}
