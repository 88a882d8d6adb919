import { CostError } from '../../errors.ts';
import { logSumExp } from '../../numeric/log-sum-exp.ts';
import { seededRandom } from '../../numeric/random.ts';
import { eliminationOrder, type EliminationOrder } from '../elimination-order.ts';
import type { Factor } from '../factor.ts';
import { JunctionTree, toComponent, type Component } from '../junction-tree.ts';
import type { Asked, Estimate, Estimator } from '../parts.ts';
import { chooseCutset } from './cutset.ts';
import { drawStart } from './start.ts';
import { estimateByDraws } from './weighted-draws.ts';

export interface EstimateOptions {
  /** Entries of the widest table that one exact step may build. */
  readonly widest?: number;
  readonly seed?: number;
  /** Independent runs, from whose spread the standard errors come. */
  readonly runs?: number;
  readonly sweeps?: number;
}

/** Each with its own variables held fast, so that every variable is drawn anew in some of them. */
const BLOCKS = 6;
/** Entries that all sweeps together may build. */
const WORK = 3e8;

/** A part of the variables held fast, and the exact order for the rest. */
interface Block {
  readonly held: readonly number[];
  readonly order: EliminationOrder;
  /** Of each factor: its axes that are not held. */
  readonly open: readonly Int32Array[];
}

/**
 * Marginals of a product of tables that is too wide to be summed exactly, by sampling in blocks: so many variables are held
 * at their present state that the rest can be summed exactly; the exact conditional marginals are averaged, and the rest is
 * drawn anew from its joint conditional distribution (blocking Gibbs: Jensen, Kong & Kjærulff 1995, Int. J.
 * Human-Computer Studies 42; averaging conditionals: Gelfand & Smith 1990, JASA 85). The probability of everything is
 * estimated by the reciprocal of Gelfand & Dey 1994, J. R. Statist. Soc. B 56.
 *
 * Several independent runs from different starts; their spread gives the standard errors.
 *
 * @throws CostError where no state to start from was found
 * @example infer(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [{ id: 'F1', sex: 'female' }] }), createEstimator()).exact // true
 */
export function createEstimator(options: EstimateOptions = {}): Estimator {
  return (factors, asked) =>
    estimateByDraws(factors, asked, options.seed ?? 1) ?? estimateInBlocks(factors, asked, options);
}

/** A table of ones changes nothing, and has a marginal. */
function withOnes(factors: readonly Factor[], asked: Asked): Factor[] {
  const ones = [...asked.values()].map((axes) => {
    const size = axes.sizes.reduce((product, states) => product * states, 1);
    return { ...axes, table: new Float64Array(size).fill(1) };
  });
  return [...factors, ...ones];
}

/** See `createEstimator`: by blocks of variables, whatever makes the product wide. */
export function estimateInBlocks(
  factors: readonly Factor[],
  asked: Asked,
  options: EstimateOptions,
): Estimate {
  const { widest = 2 ** 12, seed = 1, runs: count = 8 } = options;
  const random = seededRandom(seed);
  const component = toComponent(withOnes(factors, asked));
  const blocks = makeBlocks(component, widest, random);
  const cost = blocks.reduce((sum, { order }) => sum + order.total, 0);
  const sweeps = options.sweeps ?? Math.min(300, Math.max(20, Math.round(WORK / cost / count)));
  const visits: Visit[] = [];
  const runs = Array.from({ length: count }, () => run(component, blocks, sweeps, random, visits));
  const marginals = runs[0]!.map((_, factor) => {
    const mean = new Float64Array(runs[0]![factor]!.length);
    for (const one of runs) one[factor]!.forEach((p, at) => (mean[at]! += p / count));
    return mean;
  });
  const split = (tables: readonly Float64Array[]): Pick<Estimate, 'marginals' | 'joints'> => ({
    marginals: tables.slice(0, factors.length),
    joints: tables.slice(factors.length),
  });
  return {
    logTotal: estimateLogTotal(component, blocks[0]!.held, visits),
    ...split(marginals),
    runs: runs.map(split),
  };
}

function makeBlocks(component: Component, widest: number, random: () => number): Block[] {
  const times = new Int32Array(component.sizes.length);
  return Array.from({ length: BLOCKS }, () => {
    const held = chooseCutset(component, widest, times, random);
    for (const variable of held) times[variable]!++;
    const isHeld = new Set(held);
    const open = component.scopes.map((scope) => scope.filter((variable) => !isHeld.has(variable)));
    const sizes = component.sizes.map((size, variable) => (isHeld.has(variable) ? 1 : size));
    const order = eliminationOrder(sizes, open, { greed: 'smallest-table' })!;
    return { held, order, open };
  });
}

/** The state of the held variables of the first block at some sweep, and the probability of everything with it. */
interface Visit {
  readonly state: readonly number[];
  readonly logTotal: number;
}

function run(
  component: Component,
  blocks: readonly Block[],
  sweeps: number,
  random: () => number,
  visits: Visit[],
): Float64Array[] {
  let state = startFor(component, blocks[0]!, random);
  const sums = component.tables.map((table) => new Float64Array(table.length));
  const warmUp = Math.ceil(sweeps / 5);
  for (let sweep = -warmUp; sweep < sweeps; sweep++) {
    blocks.forEach((block, b) => {
      const tree = new JunctionTree(sliced(component, block, state), block.order);
      tree.collect();
      if (b === 0 && sweep >= 0)
        visits.push({ state: block.held.map((v) => state[v]!), logTotal: tree.logTotal });
      tree.distribute();
      if (sweep >= 0) addMarginals(component, block, state, tree.marginals(), sums);
      const drawn = tree.draw(random);
      for (const variable of block.held) drawn[variable] = state[variable]!;
      state = drawn;
    });
  }
  return sums.map((sum) => sum.map((p) => p / (sweeps * blocks.length)));
}

function startFor(component: Component, block: Block, random: () => number): Int32Array {
  for (let attempt = 0; attempt < 50; attempt++) {
    const start = drawStart(component, block.held, random);
    if (!start) continue;
    const tree = new JunctionTree(sliced(component, block, start), block.order);
    if (!tree.collect()) continue;
    const state = tree.draw(random);
    for (const variable of block.held) state[variable] = start[variable]!;
    return state;
  }
  throw new CostError(block.order.largest, block.order.largest);
}

/** Where the entries of a factor with its held axes at their state stand in its table. */
function* sliceOf(component: Component, scope: Int32Array, held: ReadonlySet<number>, state: Int32Array) {
  const { sizes } = component;
  const at = Int32Array.from(scope, (variable) => (held.has(variable) ? state[variable]! : 0));
  for (;;) {
    yield scope.reduce((position, variable, axis) => position * sizes[variable]! + at[axis]!, 0);
    let axis = scope.length - 1;
    for (; axis >= 0; axis--) {
      if (held.has(scope[axis]!)) continue;
      if (++at[axis]! < sizes[scope[axis]!]!) break;
      at[axis] = 0;
    }
    if (axis < 0) return;
  }
}

function sliced(component: Component, block: Block, state: Int32Array): Component {
  const held = new Set(block.held);
  return {
    sizes: component.sizes.map((size, variable) => (held.has(variable) ? 1 : size)),
    scopes: block.open.map((scope, factor) =>
      // A factor whose variables are all held still counts: it depends on one of them, which has one state now.
      scope.length > 0 ? scope : component.scopes[factor]!.subarray(0, 1),
    ),
    tables: component.tables.map((table, factor) =>
      Float64Array.from(sliceOf(component, component.scopes[factor]!, held, state), (at) => table[at]!),
    ),
  };
}

function addMarginals(
  component: Component,
  block: Block,
  state: Int32Array,
  marginals: readonly Float64Array[],
  sums: readonly Float64Array[],
): void {
  const held = new Set(block.held);
  component.scopes.forEach((scope, factor) => {
    let from = 0;
    for (const at of sliceOf(component, scope, held, state))
      sums[factor]![at]! += marginals[factor]![from++]!;
  });
}

/** 1/Z is the mean of q(held state) / Z(held state), for any q that adds up to 1: here a product of the marginals. */
function estimateLogTotal(component: Component, held: readonly number[], visits: readonly Visit[]): number {
  const seen = held.map((variable, k) => {
    const counts = new Float64Array(component.sizes[variable]!).fill(1e-3);
    for (const { state } of visits) counts[state[k]!]!++;
    const sum = counts.reduce((a, b) => a + b, 0);
    return counts.map((n) => n / sum);
  });
  const terms = visits.map(
    ({ state, logTotal }) => state.reduce((log, s, k) => log + Math.log(seen[k]![s]!), 0) - logTotal,
  );
  return Math.log(visits.length) - logSumExp(terms);
}
