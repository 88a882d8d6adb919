import { FEMALE, MALE } from '../pedigree/index-pedigree.ts';
import type { LocusEvidence } from './evidence.ts';
import type { Need } from './model.ts';

/** What a parent transmits: its open variables, and for each of their joint states the chance of every allele. */
export interface ParentTransmission {
  readonly scope: readonly number[];
  readonly sizes: readonly number[];
  readonly states: readonly number[];
  /** Where the marginal of these variables stands: the parent's own factor, or nothing where none is open. */
  readonly blocks: Need;
  /** `[way][joint state]` -> chance of each allele. Ways: 0 autosomal or dam, 1 to a daughter, 2 to a son. */
  readonly alleleChances: readonly (readonly Float64Array[])[];
}

/** Each way alone. */
export const WAYS: readonly (readonly number[])[] = [[0], [1], [2]];

const NO_VARIABLES = { scope: [], sizes: [], states: [], blocks: [] };

/**
 * What parents transmit at one locus. Autosomal: each allele with probability 1/2. Sex-linked: a dam likewise; a sire gives his
 * X haplotype's allele to a daughter and his Y haplotype's to a son, unless the locus recombined (docs/science.md, section 1).
 */
export class Transmission {
  readonly linked: boolean;
  /** A parent that nobody recorded. */
  readonly missing: ParentTransmission;
  private readonly k: number;
  private readonly r: number;
  private readonly vectors: Map<number, Float64Array>[] = WAYS.map(() => new Map());
  private readonly settled = new Map<number, ParentTransmission>();

  /** @param unrecorded - frequency of each listed allele in an unrecorded parent */
  constructor({ locus, alleles }: Pick<LocusEvidence, 'locus' | 'alleles'>, unrecorded: number) {
    this.k = alleles.length;
    this.linked = locus.sexLinked === true;
    this.r = locus.recombination ?? 0;
    const any = new Float64Array(this.k).fill(unrecorded);
    any[0] = 1 - (this.k - 1) * unrecorded;
    this.missing = { ...NO_VARIABLES, alleleChances: WAYS.map(() => [any]) };
  }

  /** The chance of each allele in what a parent with this ordered pair transmits. */
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

  /** A parent of which one pair is left. */
  ofPair(cell: number): ParentTransmission {
    let transmission = this.settled.get(cell);
    if (!transmission) {
      transmission = {
        ...NO_VARIABLES,
        alleleChances: WAYS.map(([way]) => [this.vector(cell, way!)]),
      };
      this.settled.set(cell, transmission);
    }
    return transmission;
  }

  /** A parent with open variables. @param cells - its pair in each of their joint states */
  ofVariables(axes: Omit<ParentTransmission, 'alleleChances'>, cells: readonly number[]): ParentTransmission {
    const ways = this.linked ? WAYS.flat() : [0];
    return { ...axes, alleleChances: ways.map((way) => cells.map((cell) => this.vector(cell, way))) };
  }

  /** By which way a sire's alleles reach a child of this sex; null where that depends on its open sex. */
  way(childSex: number, sire: ParentTransmission): number | null {
    if (!this.linked) return 0;
    if (childSex === FEMALE) return 1;
    if (childSex === MALE) return 2;
    const [, toDaughters, toSons] = sire.alleleChances;
    const same = toDaughters!.every((vector, at) => vector.every((p, a) => p === toSons![at]![a]));
    return same ? 1 : null;
  }
}

/** Each joint state of both parents, and each way within it, with the chances of each allele from either side. */
export function forEachGamete(
  mother: ParentTransmission,
  father: ParentTransmission,
  ways: readonly number[],
  see: (fromDam: Float64Array, fromSire: Float64Array, state: number) => void,
): void {
  const sireStates = father.alleleChances[0]!.length;
  let state = 0;
  for (const fromDam of mother.alleleChances[0]!) {
    for (let at = 0; at < sireStates; at++) {
      for (const way of ways) see(fromDam, father.alleleChances[way]![at]!, state++);
    }
  }
}
