import { sireCount } from '../pedigree/index-pedigree.ts';
import { allelesIn, isSettled, WILD_DOMAIN } from './domain-table.ts';
import { groupCandidates, type CandidateSires } from './candidate-sires.ts';
import { alleleVariable, axesOf, sireVariable, type Axes } from './factor.ts';
import { LeafFactors } from './leaf-factors.ts';
import { LocusTables, type LocusSource } from './locus-tables.ts';
import type { LocusModel } from './model.ts';
import { FACTOR_KINDS, ModelParts } from './model-parts.ts';
import { addCandidateTables } from './sire-factors.ts';
import type { OpenAnimal, ParentTransmission } from './transmission.ts';

const NO_SIRES: readonly number[] = [];

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
  private readonly tables: LocusTables;
  private readonly live: readonly number[];
  private readonly sireOpen: Uint8Array;
  private readonly locus: number;
  private readonly parts = new ModelParts();
  private readonly leaves: LeafFactors;
  private readonly open = new Map<number, OpenAnimal>();

  constructor(source: LocusSource & { readonly sireOpen: Uint8Array; readonly locus: number }) {
    this.tables = new LocusTables(source);
    this.live = source.domains.live;
    this.sireOpen = source.sireOpen;
    this.locus = source.locus;
    this.leaves = new LeafFactors(this.tables, this.parts);
  }

  build(): LocusModel {
    const { place, evidence } = this.tables;
    const wildSeen = new Float64Array(evidence.likelihoods.length);
    for (const i of this.live) {
      if (place[i] === WILD_DOMAIN && this.isPlain(i)) wildSeen[evidence.likelihood[i]!]!++;
      else this.animal(i);
    }
    wildSeen.forEach((count, id) => {
      if (count > 0) this.parts.logConstant += count * Math.log(evidence.likelihoods[id]![0]!);
    });
    this.leaves.close();
    return this.parts.done();
  }

  /** Whether an animal that is wild type for certain has parents that are so too. */
  private isPlain(i: number): boolean {
    const { place, evidence } = this.tables;
    const { dam, sire, sireStart } = this.tables.ties;
    const mother = dam[i]!;
    const from = sireStart[i]!;
    const to = sireStart[i + 1]!;
    if (mother < 0) {
      if (from < to || evidence.prior[i] !== 0) return false;
    } else if (place[mother] !== WILD_DOMAIN || from === to) return false;
    for (let e = from; e < to; e++)
      if (this.sireOpen[e] !== 0 && place[sire[e]!] !== WILD_DOMAIN) return false;
    return true;
  }

  private transmissionOf(parent: number): ParentTransmission {
    const { transmission } = this.tables;
    if (parent < 0) return transmission.missing;
    return this.open.get(parent)?.transmission ?? transmission.ofPair(this.tables.settledCell(parent));
  }

  private candidates(animal: number): number[] {
    const found: number[] = [];
    for (let e = this.tables.ties.sireStart[animal]!; e < this.tables.ties.sireStart[animal + 1]!; e++) {
      if (this.sireOpen[e]) found.push(e);
    }
    return found;
  }

  private animal(i: number): void {
    const { ties } = this.tables;
    const domain = this.tables.pairs.domain(i);
    const count = sireCount(ties, i);
    const isLeaf = ties.isParent[i] === 0 || isSettled(domain, ties.sex[i]!, this.tables.linked);
    if (ties.dam[i]! < 0 && count === 0) {
      const table = this.tables.pairs.ofFounder(i);
      if (isLeaf) this.isolated(i, table);
      else this.declare(i, this.tables.pairs.isOrdered(i) ? table : this.tables.pairs.folded(table));
      return;
    }
    const mother = this.transmissionOf(ties.dam[i]!);
    const entries = count > 1 ? this.candidates(i) : count === 1 ? [ties.sireStart[i]!] : NO_SIRES;
    if (entries.length > 1) {
      const candidates = groupCandidates(
        entries,
        entries.map((entry) => this.transmissionOf(ties.sire[entry]!)),
      );
      if (candidates.groups.length > 1) {
        if (isLeaf) this.leaves.addWithOpenSire(i, mother, candidates);
        else this.inner(i, mother, candidates);
        return;
      }
    }
    // Candidates who transmit alike are as good as one.
    const entry = entries[0] ?? -1;
    const father = this.transmissionOf(entry < 0 ? -1 : ties.sire[entry]!);
    if (isLeaf) this.leaves.add(i, mother, father, entry);
    else if (mother.scope.length > 0 || father.scope.length > 0)
      this.inner(i, mother, groupCandidates([entry], [father]));
    else {
      // A parent that depends on nothing open above it is as good as a founder.
      const table = this.tables.bredTable(i, mother, father);
      this.declare(i, this.tables.pairs.isOrdered(i) ? table : this.tables.pairs.folded(table));
    }
  }

  /** An isolated animal, without open relatives: its distribution is known at once. */
  private isolated(i: number, table: Float64Array): void {
    const logTotal = Math.log(table.reduce((a, b) => a + b, 0));
    this.parts.logConstant += logTotal;
    const distribution = this.tables.pairs.reported(i, table);
    this.parts.readings.push({ animals: [i], needs: [], read: () => distribution });
  }

  /** Opens the variables of an animal that can have these pairs, and adds its own table. */
  private declare(i: number, table: Float64Array): OpenAnimal {
    const k = this.tables.evidence.alleles.length;
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
    const at = this.parts.add({
      name: i * FACTOR_KINDS,
      scope,
      sizes,
      states,
      table: new Float64Array(cells.map((cell) => table[cell]!)),
    });
    const blocks = at < 0 ? [] : [{ factor: at }];
    const transmission = this.tables.transmission.ofVariables({ scope, sizes, states, blocks }, cells);
    this.parts.readings.push({
      animals: [i],
      needs: at < 0 ? [] : [blocks],
      read: ([marginal]) => {
        const whole = new Float64Array(k * k);
        cells.forEach((cell, state) => (whole[cell] = marginal ? marginal[state]! : 1));
        return this.tables.pairs.reported(i, whole);
      },
    });
    const open = { first, second, transmission };
    this.open.set(i, open);
    return open;
  }

  /** A parent whose own parents are open: its two alleles depend on theirs. */
  private inner(i: number, mother: ParentTransmission, candidates: CandidateSires): void {
    const { pairs } = this.tables.pairs.domain(i);
    const likelihood = this.tables.evidence.likelihoods[this.tables.evidence.likelihood[i]!]!;
    const { first, second, transmission } = this.declare(
      i,
      likelihood.map((p, cell) => (pairs[cell] ? p : 0)),
    );
    const firstAxis = first.length > 1 ? 1 : 0;
    const axis = (side: 0 | 1): Axes => {
      const alleles = side === 0 ? first : second;
      const at = side === 0 ? 0 : firstAxis;
      if (alleles.length < 2) return { scope: [], sizes: [], states: [] };
      return {
        scope: [transmission.scope[at]!],
        sizes: [transmission.sizes[at]!],
        states: [transmission.states[at]!],
      };
    };
    this.parts.add({
      name: i * FACTOR_KINDS + 1,
      ...axesOf(axis(0), mother),
      table: new Float64Array(first.flatMap((a) => mother.alleleChances[0]!.map((vector) => vector[a]!))),
    });
    const theirs = axis(1);
    const tables = candidates.groups.map(({ entry, father, places }) => {
      const alleleChances = father.alleleChances[this.tables.way(i, father) ?? 0]!;
      return {
        name: entry * FACTOR_KINDS + 3,
        ...axesOf(theirs, father),
        table: new Float64Array(second.flatMap((b) => alleleChances.map((vector) => vector[b]!))),
        candidates: places,
      };
    });
    if (tables.length === 1) this.parts.add({ ...tables[0]!, name: i * FACTOR_KINDS + 2 });
    else
      addCandidateTables(
        this.parts,
        { sire: sireVariable(i), candidates: candidates.count, name: candidates.name },
        tables,
      );
  }
}
