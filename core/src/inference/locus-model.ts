import { sireCount } from '../pedigree/index-pedigree.ts';
import { allelesIn, isSettled, WILD_DOMAIN } from './domain-table.ts';
import { groupCandidates, type Family, type OpenAnimal } from './family.ts';
import { derive } from './derive.ts';
import { alleleVariable, axesOf, sireVariable, type Axes } from './factor.ts';
import { LeafFactors } from './leaf-factors.ts';
import { LocusTables, type LocusSource } from './locus-tables.ts';
import type { LocusModel } from './model.ts';
import { FACTOR_KINDS, ModelParts } from './model-parts.ts';
import { addCandidateTables } from './sire-factors.ts';
import type { ParentTransmission } from './transmission.ts';

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
    const animals: number[] = [];
    for (const i of this.live) {
      if (place[i] === WILD_DOMAIN && this.isPlain(i)) wildSeen[evidence.likelihood[i]!]!++;
      else {
        animals.push(i);
        if (!this.isLeaf(i)) this.openAlleles(i);
      }
    }
    wildSeen.forEach((count, id) => {
      if (count > 0) this.parts.logConstant += count * Math.log(evidence.likelihoods[id]![0]!);
    });
    // Young before their parents: a parent of whose young nothing depends on it needs no variables.
    for (let at = animals.length - 1; at >= 0; at--) this.animal(animals[at]!);
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

  private isLeaf(i: number): boolean {
    const { ties, linked, pairs } = this.tables;
    return ties.isParent[i] === 0 || isSettled(pairs.domain(i), ties.sex[i]!, linked);
  }

  /** What an animal's parents transmit; null for a founder. */
  private family(i: number): Family | null {
    const { ties } = this.tables;
    const count = sireCount(ties, i);
    if (ties.dam[i]! < 0 && count === 0) return null;
    const mother = this.transmissionOf(ties.dam[i]!);
    const entries = count > 1 ? this.candidates(i) : count === 1 ? [ties.sireStart[i]!] : NO_SIRES;
    const candidates = groupCandidates(
      entries,
      entries.map((entry) => this.transmissionOf(ties.sire[entry]!)),
      this.tables.transmission.missing,
    );
    return { mother, candidates };
  }

  private animal(i: number): void {
    const open = this.open.get(i);
    if (!open) this.closed(i);
    else if (!open.family) this.addOwn(i, open);
    else {
      const derived = this.parts.isSpokenOf(i) ? null : derive(this.tables, i, open.family, open.cells);
      if (derived && this.parts.derive(i, derived)) this.leaf(i, open.family);
      else this.inner(i, open, open.family);
    }
  }

  /** An animal that transmits nothing open. */
  private closed(i: number): void {
    const { ties } = this.tables;
    const from = ties.sireStart[i]!;
    if (sireCount(ties, i) === 1) {
      const father = this.transmissionOf(ties.sire[from]!);
      this.leaves.add(i, this.transmissionOf(ties.dam[i]!), father, from);
      return;
    }
    const family = this.family(i);
    if (family) this.leaf(i, family);
    else this.isolated(i, this.tables.pairs.ofFounder(i));
  }

  private leaf(i: number, { mother, candidates }: Family): void {
    // Candidates who transmit alike are as good as one.
    if (candidates.groups.length > 1) this.leaves.addWithOpenSire(i, mother, candidates);
    else this.leaves.add(i, mother, candidates.groups[0]!.father, candidates.groups[0]!.entry);
  }

  /** An isolated animal, without open relatives: its distribution is known at once. */
  private isolated(i: number, table: Float64Array): void {
    const logTotal = Math.log(table.reduce((a, b) => a + b, 0));
    this.parts.logConstant += logTotal;
    const distribution = this.tables.pairs.reported(i, table);
    this.parts.readings.push({ animals: [i], needs: [], read: () => distribution });
  }

  /** Gives an animal variables for what it transmits, and the table of its own. */
  private openAlleles(i: number): void {
    const { evidence, transmission } = this.tables;
    const k = evidence.alleles.length;
    const family = this.family(i);
    const isBound =
      family !== null &&
      (family.mother.scope.length > 0 ||
        family.candidates.groups.length > 1 ||
        family.candidates.groups[0]!.father.scope.length > 0);
    const table = isBound ? this.likelihood(i) : this.unbound(i, family);
    let firstMask = 0;
    let secondMask = 0;
    for (let cell = 0; cell < k * k; cell++) {
      if (table[cell] === 0) continue;
      firstMask |= 1 << Math.floor(cell / k);
      secondMask |= 1 << (cell % k);
    }
    const first = allelesIn(firstMask);
    const second = allelesIn(secondMask);
    const axes = axesOf(
      axisOf(alleleVariable(this.locus, i, 0), first.length, firstMask),
      axisOf(alleleVariable(this.locus, i, 1), second.length, secondMask),
    );
    const cells = first.flatMap((a) => second.map((b) => a * k + b));
    const blocks = axes.scope.length === 0 ? [] : [{ own: i }];
    this.open.set(i, {
      first,
      second,
      cells,
      table: new Float64Array(cells.map((cell) => table[cell]!)),
      family: isBound ? family : null,
      transmission: transmission.ofVariables({ ...axes, blocks }, cells),
    });
  }

  private likelihood(i: number): Float64Array {
    const { pairs } = this.tables.pairs.domain(i);
    return this.tables.evidence.likelihoods[this.tables.evidence.likelihood[i]!]!.map((p, cell) =>
      pairs[cell] ? p : 0,
    );
  }

  /** Of a founder, or an animal that depends on nothing open above it, which is as good as one. */
  private unbound(i: number, family: Family | null): Float64Array {
    const { pairs } = this.tables;
    const table = family
      ? this.tables.bredTable(i, family.mother, family.candidates.groups[0]!.father)
      : pairs.ofFounder(i);
    return pairs.isOrdered(i) ? table : pairs.folded(table);
  }

  private addOwn(i: number, { cells, table, transmission }: OpenAnimal): void {
    const { scope, sizes, states } = transmission;
    const at = this.parts.add({ name: i * FACTOR_KINDS, scope, sizes, states, table });
    if (at >= 0) this.parts.owns.set(i, at);
    this.parts.readings.push({
      animals: [i],
      needs: at < 0 ? [] : [transmission.blocks],
      read: ([marginal]) => {
        const whole = new Float64Array(this.tables.cells);
        cells.forEach((cell, state) => (whole[cell] = marginal ? marginal[state]! : 1));
        return this.tables.pairs.reported(i, whole);
      },
    });
  }

  /** A parent whose own parents are open: its two alleles depend on theirs. */
  private inner(i: number, open: OpenAnimal, { mother, candidates }: Family): void {
    this.addOwn(i, open);
    const { first, second, transmission } = open;
    const [own, theirs] = [first, second].map((alleles, side) => {
      const at = side === 1 && first.length > 1 ? 1 : 0;
      return axisOf(transmission.scope[at]!, alleles.length, transmission.states[at]!);
    });
    this.parts.add({
      name: i * FACTOR_KINDS + 1,
      ...axesOf(own!, mother),
      table: new Float64Array(first.flatMap((a) => mother.alleleChances[0]!.map((vector) => vector[a]!))),
    });
    const tables = candidates.groups.map(({ entry, father, places }) => {
      const alleleChances = father.alleleChances[this.tables.way(i, father) ?? 0]!;
      return {
        name: entry * FACTOR_KINDS + 3,
        ...axesOf(theirs!, father),
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

/** The axis of an allele; none where it is settled. */
function axisOf(variable: number, size: number, states: number): Axes {
  return size < 2
    ? { scope: [], sizes: [], states: [] }
    : { scope: [variable], sizes: [size], states: [states] };
}
