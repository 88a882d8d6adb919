import type { Component } from '../junction-tree.ts';
import type { Relaxed } from './split-choices.ts';
import { addColumn, type Draws } from './tree-draws.ts';

/** So many are multiplied before a logarithm is taken: few enough not to underflow. */
const BEFORE_LOGS = 16;

/** Choices that the looser product makes several times, summed given the alleles of each draw. */
export class SummedChoices {
  /** Of each draw: the logarithm of how much likelier it is in the real product. */
  readonly logWeights: Float64Array;
  private readonly component: Component;
  private readonly relaxed: Relaxed;
  private readonly draws: Draws;
  private readonly places: Int32Array;
  /** Of each draw: what its weight is to be multiplied by, before that goes into `logWeights`. */
  private readonly products: Float64Array;
  private multiplied = 0;
  /** By choice: `[draw][state]`, in the real product; and of each of its copies. */
  private readonly whole: readonly Float64Array[];
  private readonly copies: readonly (readonly Float64Array[])[];

  constructor(component: Component, relaxed: Relaxed, draws: Draws) {
    this.component = component;
    this.relaxed = relaxed;
    this.draws = draws;
    this.places = new Int32Array(component.sizes.length).fill(-1);
    relaxed.splits.forEach(({ variable }, n) => (this.places[variable] = n));
    const count = draws[0]!.length;
    this.logWeights = new Float64Array(count);
    this.products = new Float64Array(count).fill(1);
    const whole: Float64Array[] = [];
    const copies: Float64Array[][] = [];
    for (const { weights, groups } of relaxed.splits) {
      const all = repeated(weights, count);
      copies.push(
        groups.map(({ factors, prior }) => {
          const said = repeated(new Float64Array(weights.length).fill(1), count);
          for (const f of factors) this.multiply(said, weights.length, f);
          for (let at = 0; at < all.length; at++) all[at]! *= said[at]!;
          for (let at = 0; at < said.length; at++) said[at]! *= prior[at % prior.length]!;
          this.settle(said, weights.length, -1);
          return said;
        }),
      );
      this.settle(all, weights.length, 1);
      whole.push(all);
    }
    this.whole = whole;
    this.copies = copies;
    this.takeLogs();
  }

  /** Which split choice a variable is; -1 for others. */
  splitOf(variable: number): number {
    return this.places[variable]!;
  }

  /** `[draw][state]`. @param group - of which copy; null in the real product */
  chances(split: number, group: number | null): Float64Array {
    return group === null ? this.whole[split]! : this.copies[split]![group]!;
  }

  firstCopyMarginal(split: number, marginals: readonly Float64Array[]): Float64Array {
    const { copy } = this.relaxed.splits[split]!.groups[0]!;
    const { scopes } = this.relaxed.component;
    const own = scopes.findLastIndex((scope) => scope.length === 1 && scope[0] === copy);
    return marginals[own]!;
  }

  /** Multiplies in what a factor says of the choice on its first axis, given the others. */
  private multiply(into: Float64Array, states: number, f: number): void {
    const scope = this.component.scopes[f]!;
    const table = this.component.tables[f]!;
    const count = this.logWeights.length;
    const at = new Int32Array(count);
    let width = 1;
    for (let axis = scope.length - 1; axis > 0; axis--) {
      addColumn(at, this.draws[scope[axis]!]!, width);
      width *= this.component.sizes[scope[axis]!]!;
    }
    for (let n = 0; n < count; n++)
      for (let s = 0; s < states; s++) into[n * states + s]! *= table[s * width + at[n]!]!;
  }

  /** Makes each draw's chances add up to 1, and counts what they added up to. */
  private settle(chances: Float64Array, states: number, sign: 1 | -1): void {
    const { products } = this;
    for (let n = 0; n < products.length; n++) {
      let sum = 0;
      for (let s = 0; s < states; s++) sum += chances[n * states + s]!;
      if (sign > 0) products[n]! *= sum;
      else products[n]! /= sum;
      if (sum > 0) for (let s = 0; s < states; s++) chances[n * states + s]! /= sum;
    }
    this.multiplied += 1;
    if (this.multiplied === BEFORE_LOGS) this.takeLogs();
  }

  private takeLogs(): void {
    for (let n = 0; n < this.products.length; n++) this.logWeights[n]! += Math.log(this.products[n]!);
    this.products.fill(1);
    this.multiplied = 0;
  }
}

function repeated(row: Float64Array, count: number): Float64Array {
  const all = new Float64Array(row.length * count);
  for (let n = 0; n < count; n++) all.set(row, n * row.length);
  return all;
}
