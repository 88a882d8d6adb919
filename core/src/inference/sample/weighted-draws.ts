import { seededRandom } from '../../numeric/random.ts';
import type { Factor } from '../factor.ts';
import type { NamedFactor } from '../model.ts';
import { JunctionTree, toComponent, type Component } from '../junction-tree.ts';
import type { Asked, Estimate } from '../parts.ts';
import { fitMargins } from './fit-margins.ts';
import { splitChoices, type Relaxed, type RelaxedLimits } from './split-choices.ts';
import { SummedChoices } from './summed-choices.ts';
import { addColumn, drawFromTree, type Draws } from './tree-draws.ts';

/** Independent sets of draws, from whose spread the standard errors come. */
const RUNS = 16;
/** All draws, and all but those of each run. */
const PLACES = RUNS + 1;
/** States that all draws together hold. */
const WORK = 1.2e7;
const MOST_DRAWS = 2 ** 13;
/** With fewer that count, the standard errors could not be trusted. */
const FEWEST_DRAWS = 100;
/** What the looser product may cost to sum: the second where a single locus is wider than the first. */
const LIMITS: readonly RelaxedLimits[] = [
  { widest: 2 ** 16, total: 2 ** 20 },
  { widest: 2 ** 20, total: 2 ** 22 },
];

/**
 * Marginals of a product of tables that is too wide to be summed exactly, because choices of sires tie its loci together:
 * a looser product, with some choices made anew for some loci, is summed exactly and drawn from, and each draw is weighted by
 * how much likelier it is in the real one (importance sampling: Robert & Casella 2004, Monte Carlo statistical methods, 3.3).
 * What the looser product gives exactly is corrected by the difference that the weights make, so that only that difference has
 * sampling error (control variates: the same, 4.4.2); choices that are made anew are not drawn but summed, given the alleles.
 *
 * Cost: about the same for every product, by the number of draws.
 *
 * @returns null where even the loosest product is too wide, or so unlike the real one that few draws count
 */
export function estimateByDraws(
  factors: readonly Factor[],
  asked: Asked,
  seed: number,
  limits: readonly RelaxedLimits[] = LIMITS,
): Estimate | null {
  const numbers = new Map<number, number>();
  const component = toComponent(factors, numbers);
  let relaxed: Relaxed | null = null;
  for (const by of ['locus', 'table'] as const)
    for (const limit of limits) relaxed ??= splitChoices({ factors, component, numbers }, limit, by);
  if (!relaxed) return null;
  const tree = new JunctionTree(relaxed.component, relaxed.order);
  if (!tree.collect()) return { logTotal: -Infinity, marginals: [], joints: [], runs: [] };
  const { logTotal } = tree;
  tree.distribute();
  const count = Math.max(8, Math.min(MOST_DRAWS, Math.round(WORK / component.sizes.length)) >> 4) * RUNS;
  const draws = drawFromTree(tree, count, seededRandom(seed));
  const weighted = new WeightedDraws(component, relaxed, draws, tree.marginals());
  if (weighted.effectiveDraws < FEWEST_DRAWS) return null;
  const joints = [...asked.values()].map(({ scope }) =>
    Int32Array.from(scope, (variable) => numbers.get(variable)!),
  );
  const isRead = (f: number): boolean => (factors[f] as Partial<NamedFactor>).isRead !== false;
  return weighted.estimate(logTotal, isRead, joints);
}

/** Of what nobody reads. */
const NOT_READ = new Float64Array();

/** Entries from all draws, then from all but those of each run, one table after the other. */
type Estimates = Float64Array;

/** Of estimates from all draws and from all but each run's: what stands for each run (jackknife: Tukey 1958, from memory). */
function pseudoValues(estimates: Estimates): Float64Array[] {
  const cells = estimates.length / PLACES;
  return Array.from({ length: RUNS }, (_, run) => {
    const values = new Float64Array(cells);
    const start = (run + 1) * cells;
    for (let at = 0; at < cells; at++)
      values[at] = RUNS * estimates[at]! - (RUNS - 1) * estimates[start + at]!;
    return values;
  });
}

class WeightedDraws {
  private readonly component: Component;
  private readonly relaxed: Relaxed;
  private readonly draws: Draws;
  private readonly marginals: readonly Float64Array[];
  private readonly choices: SummedChoices;
  /** Of each draw: how much likelier it is in the real product, relative to the likeliest. */
  private readonly weights: Float64Array;
  /** The same, added up: all, then all but those of each run. */
  private readonly weightOf: readonly number[];
  private readonly logMeanWeight: number;
  /** As many equally weighted ones tell as much (Kong 1992, from memory). */
  readonly effectiveDraws: number;
  /** By variable: its marginal. */
  private readonly known = new Map<number, Estimates>();

  constructor(component: Component, relaxed: Relaxed, draws: Draws, marginals: readonly Float64Array[]) {
    this.component = component;
    this.relaxed = relaxed;
    this.draws = draws;
    this.marginals = marginals;
    this.choices = new SummedChoices(component, relaxed, draws);
    const logs = this.choices.logWeights;
    const most = logs.reduce((a, b) => Math.max(a, b), -Infinity);
    this.weights = logs.map((log) => Math.exp(log - most));
    const sums = new Float64Array(RUNS);
    this.weights.forEach((weight, n) => (sums[n % RUNS]! += weight));
    const sum = sums.reduce((a, b) => a + b, 0);
    this.weightOf = [sum, ...[...sums].map((one) => sum - one)];
    this.logMeanWeight = most + Math.log(sum / logs.length);
    const squares = this.weights.reduce((total, weight) => total + weight * weight, 0);
    this.effectiveDraws = most === -Infinity ? 0 : sum ** 2 / squares;
  }

  /** @param joints - sets of variables whose joint marginals are asked for beside those of factors */
  estimate(
    relaxedTotal: number,
    isRead: (factor: number) => boolean,
    joints: readonly Int32Array[],
  ): Estimate {
    const singles = this.component.scopes.map((scope, f) => {
      if (!isRead(f) && !this.isFirstOf(scope)) return NOT_READ;
      const found = this.ofFactor(f);
      this.learn(scope, found);
      return found;
    });
    const others = joints.map((scope) => this.ofJoint(scope));
    const all = (estimates: Estimates): Float64Array => estimates.slice(0, estimates.length / PLACES);
    const singleRuns = singles.map(pseudoValues);
    const otherRuns = others.map(pseudoValues);
    return {
      logTotal: relaxedTotal + this.logMeanWeight,
      marginals: singles.map(all),
      joints: others.map(all),
      runs: Array.from({ length: RUNS }, (_, r) => ({
        marginals: singleRuns.map((runs) => runs[r]!),
        joints: otherRuns.map((runs) => runs[r]!),
      })),
    };
  }

  /** Whether nothing better is known yet of some variable of a table. */
  private isFirstOf(scope: Int32Array): boolean {
    return scope.some((variable) => !this.known.has(variable));
  }

  /** What is exact in the looser product, corrected by what the weights change. */
  private ofFactor(f: number): Estimates {
    const scope = this.component.scopes[f]!;
    const own = this.choices.splitOf(scope[0]!);
    const isOfChoice = scope.length === 1 && own >= 0;
    const base = isOfChoice ? this.choices.firstCopyMarginal(own, this.marginals) : this.marginals[f]!;
    const group = isOfChoice ? 0 : (this.relaxed.splitOf.get(f)?.group ?? 0);
    const found = leaveOneOut(this.sum(scope, this.weights, null));
    const plain = leaveOneOut(this.sum(scope, null, group));
    const cells = base.length;
    for (let place = 0, at = 0; place < PLACES; place++) {
      const weight = this.weightOf[place]!;
      const count = this.weights.length * (place === 0 ? 1 : 1 - 1 / RUNS);
      for (let cell = 0; cell < cells; cell++, at++)
        found[at] = found[at]! / weight + base[cell]! - plain[at]! / count;
    }
    return found;
  }

  /** By weighted draws alone, fitted to what is known better of each of its variables. */
  private ofJoint(scope: Int32Array): Estimates {
    const sizes = Array.from(scope, (variable) => this.component.sizes[variable]!);
    const found = leaveOneOut(this.sum(scope, this.weights, null));
    const cells = found.length / PLACES;
    for (let place = 0; place < PLACES; place++) {
      const margins = Array.from(scope, (variable, axis) =>
        this.known.get(variable)!.subarray(place * sizes[axis]!, (place + 1) * sizes[axis]!),
      );
      fitMargins(found.subarray(place * cells, (place + 1) * cells), sizes, margins);
    }
    return found;
  }

  /** Keeps the marginal of each variable of a table. */
  private learn(scope: Int32Array, tables: Estimates): void {
    const cells = tables.length / PLACES;
    let inner = 1;
    for (let axis = scope.length - 1; axis >= 0; axis--) {
      const variable = scope[axis]!;
      const states = this.component.sizes[variable]!;
      const step = inner;
      inner *= states;
      // A table of one variable says it best.
      if (this.known.has(variable) && scope.length > 1) continue;
      const sums = new Float64Array(PLACES * states);
      for (let at = 0; at < tables.length; at++)
        sums[Math.floor(at / cells) * states + (Math.floor((at % cells) / step) % states)]! += tables[at]!;
      this.known.set(variable, sums);
    }
  }

  /**
   * Adds up draws by run and by the joint state of some variables. A choice that is split counts with the chance of each of its
   * states.
   *
   * @param shares - of each draw; null: 1 each
   * @param group - which copy's chances; null for those in the real product
   */
  private sum(scope: Int32Array, shares: Float64Array | null, group: number | null): Float64Array {
    const { sizes } = this.component;
    const count = this.weights.length;
    const at = new Int32Array(count);
    const summed: SummedAxis[] = [];
    let cells = 1;
    for (let axis = scope.length - 1; axis >= 0; axis--) {
      const variable = scope[axis]!;
      const split = this.choices.splitOf(variable);
      if (split >= 0)
        summed.push({ chances: this.choices.chances(split, group), states: sizes[variable]!, stride: cells });
      else addColumn(at, this.draws[variable]!, cells);
      cells *= sizes[variable]!;
    }
    const sums = new Float64Array(RUNS * cells);
    for (let n = 0; n < count; n++) at[n]! += (n % RUNS) * cells;
    addDraws(sums, at, shares, summed);
    return sums;
  }
}

/** The axis of a choice that is summed in each draw. */
interface SummedAxis {
  readonly chances: Float64Array;
  readonly states: number;
  readonly stride: number;
}

/** @param at - where each draw falls, but for the summed axes. @param shares - null: 1 each */
function addDraws(
  sums: Float64Array,
  at: Int32Array,
  shares: Float64Array | null,
  [first, ...others]: readonly SummedAxis[],
): void {
  if (!first) {
    if (shares) for (let n = 0; n < at.length; n++) sums[at[n]!]! += shares[n]!;
    else for (let n = 0; n < at.length; n++) sums[at[n]!]!++;
    return;
  }
  const { chances, states, stride } = first;
  if (others.length === 0) {
    for (let n = 0, from = 0; n < at.length; n++) {
      const share = shares ? shares[n]! : 1;
      for (let s = 0, place = at[n]!; s < states; s++, place += stride)
        sums[place]! += share * chances[from++]!;
    }
    return;
  }
  for (let s = 0; s < states; s++) {
    const moved = at.map((place) => place + s * stride);
    const weighed = Float64Array.from(at, (_, n) => (shares ? shares[n]! : 1) * chances[n * states + s]!);
    addDraws(sums, moved, weighed, others);
  }
}

/** Sums of all runs, then of all but each. @param sums - of each run, one after the other */
function leaveOneOut(sums: Float64Array): Estimates {
  const cells = sums.length / RUNS;
  const found = new Float64Array(PLACES * cells);
  for (let at = 0; at < sums.length; at++) found[at % cells]! += sums[at]!;
  for (let at = 0; at < sums.length; at++) found[cells + at] = found[at % cells]! - sums[at]!;
  return found;
}
