import { eliminationOrder, type EliminationOrder } from '../elimination-order.ts';
import { locusOf, type Factor } from '../factor.ts';
import { JunctionTree, type Component } from '../junction-tree.ts';

/** A choice (of a sire, or a sex) that stands in several groups of factors, each with a copy of its own. */
export interface SplitChoice {
  /** Its number in the component as it was. */
  readonly variable: number;
  /** Its prior, times what speaks of nothing but it. */
  readonly weights: Float64Array;
  readonly groups: readonly ChoiceGroup[];
}

/** Factors that share one copy of a choice. */
export interface ChoiceGroup {
  readonly copy: number;
  readonly factors: readonly number[];
  /** What the copy has instead of the choice's weights. */
  readonly prior: Float64Array;
}

/** A product of tables in which some choices are made anew for some loci, so that its tables are narrow. */
export interface Relaxed {
  readonly component: Component;
  readonly order: EliminationOrder;
  readonly splits: readonly SplitChoice[];
  /** For each factor, the choice that it speaks of if that is split, and which group it is in. */
  readonly splitOf: ReadonlyMap<number, { readonly split: number; readonly group: number }>;
}

/** A choice and one locus that speaks of it, or one candidate's table. */
interface Tie {
  readonly choice: number;
  readonly factors: readonly number[];
  /** What the locus says of each state, on average. */
  said: Float64Array;
  /** How much the locus and the choice depend on each other (chi-square of their joint marginal). */
  strength: number;
}

interface Choice {
  readonly variable: number;
  readonly weights: Float64Array;
  readonly ties: readonly Tie[];
}

/** A product of tables, and the number that each of its variables has in the component. */
export interface Numbered {
  readonly factors: readonly Factor[];
  readonly component: Component;
  readonly numbers: ReadonlyMap<number, number>;
}

/** Whether a choice is made anew for whole loci, or for single tables, where a locus alone is too wide. */
export type SplitBy = 'locus' | 'table';

/** Entries of the widest table, and of all tables, of what is summed exactly. */
export interface RelaxedLimits {
  readonly widest: number;
  readonly total: number;
}

/**
 * Loosens a product of tables until it can be summed: where a choice ties loci together, it is made anew for the loci that
 * depend on it least, each copy weighted by what the other loci say on average (node splitting with compensation: Choi &
 * Darwiche 2006, AAAI-06, 1107-1114).
 *
 * @returns null where it is too wide with every choice split
 */
export function splitChoices(whole: Numbered, { widest, total }: RelaxedLimits, by: SplitBy): Relaxed | null {
  const { component } = whole;
  const choices = choicesOf(whole, by);
  const all = choices.flatMap((choice) => choice.ties);
  const orderOf = ({ component: { sizes, scopes } }: Omit<Relaxed, 'order'>): EliminationOrder | null => {
    for (const greed of ['smallest-table', 'fewest-ties'] as const) {
      const found = eliminationOrder(sizes, scopes, { greed, stopAt: total, budget: { left: 5e7 } });
      if (found && found.largest <= widest) return found;
    }
    return null;
  };
  const unsplit = relax(component, choices, new Set());
  const asIs = orderOf(unsplit);
  if (asIs) return { ...unsplit, order: asIs };
  const apart = relax(component, choices, new Set(all));
  const order = orderOf(apart);
  if (!order) return null;
  weigh(choices, apart, order);
  const byCost = all.toSorted((a, b) => costOf(a, choices) - costOf(b, choices));
  let best: Relaxed = { ...relax(component, choices, new Set(all)), order };
  // As few as it takes, the cheapest first.
  for (let low = 0, high = all.length; low < high;) {
    const middle = (low + high) >> 1;
    const relaxed = relax(component, choices, new Set(byCost.slice(0, middle)));
    const found = orderOf(relaxed);
    if (found) {
      best = { ...relaxed, order: found };
      high = middle;
    } else low = middle + 1;
  }
  return best;
}

/** What splitting a tie off loses: how much its locus depends on what the others say. */
function costOf(tie: Tie, choices: readonly Choice[]): number {
  const { ties } = choices[tie.choice]!;
  return tie.strength * ties.reduce((sum, other) => (other === tie ? sum : sum + other.strength), 0);
}

function choicesOf({ factors, component, numbers }: Numbered, by: SplitBy): Choice[] {
  const places = new Map<number, Map<number, number[]>>();
  const weights = new Map<number, Float64Array>();
  factors.forEach(({ scope, table }, f) => {
    for (const variable of scope) {
      if (variable >= 0) continue;
      const allele = scope.find((other) => other >= 0);
      if (allele === undefined) {
        if (scope.length > 1) continue;
        const before = weights.get(variable);
        weights.set(variable, before ? before.map((p, s) => p * table[s]!) : table);
        continue;
      }
      const loci = places.get(variable) ?? new Map<number, number[]>();
      places.set(variable, loci);
      const key = by === 'locus' ? locusOf(allele) : f;
      loci.set(key, [...(loci.get(key) ?? []), f]);
    }
  });
  return [...places]
    .filter(([variable, loci]) => isChoice(variable) && loci.size > 1)
    .map(([variable, loci], choice) => {
      const number = numbers.get(variable)!;
      const prior = weights.get(variable) ?? new Float64Array(component.sizes[number]!).fill(1);
      const ties = [...loci.values()].map((of) => ({
        choice,
        factors: of,
        said: NOTHING,
        strength: 0,
      }));
      return { variable: number, weights: prior, ties };
    });
}

/** Sires are chosen; sexes, which stand in few factors, stay as they are. */
const isChoice = (variable: number): boolean => variable % 2 !== 0;

const NOTHING = new Float64Array();

/** @param off - the ties that get a copy of their own; the others of a choice share one */
function relax(
  component: Component,
  choices: readonly Choice[],
  off: ReadonlySet<Tie>,
): Omit<Relaxed, 'order'> {
  const sizes = [...component.sizes];
  const scopes = [...component.scopes];
  const tables = [...component.tables];
  const splits: SplitChoice[] = [];
  const splitOf = new Map<number, { split: number; group: number }>();
  for (const { variable, weights, ties } of choices) {
    const together = ties.filter((tie) => !off.has(tie));
    const groupsOf = [
      ...(together.length > 0 ? [together] : []),
      ...ties.filter((tie) => off.has(tie)).map((tie) => [tie]),
    ];
    if (groupsOf.length < 2) continue;
    const groups = groupsOf.map((group, g): ChoiceGroup => {
      const copy = g === 0 ? variable : sizes.push(sizes[variable]!) - 1;
      const factors = group.flatMap((tie) => tie.factors);
      for (const f of factors) {
        scopes[f] = scopes[f]!.map((v) => (v === variable ? copy : v));
        splitOf.set(f, { split: splits.length, group: g });
      }
      const others = groupsOf.filter((other) => other !== group).flat();
      const prior = normalised(
        weights.map((weight, s) => others.reduce((product, { said }) => product * (said[s] ?? 1), weight)),
      );
      return { copy, factors, prior };
    });
    splits.push({ variable, weights, groups });
  }
  const isSplit = new Set(splits.map(({ variable }) => variable));
  component.scopes.forEach((scope, f) => {
    // What speaks of the choice alone is in its weights.
    if (scope.length === 1 && isSplit.has(scope[0]!)) tables[f] = new Float64Array(tables[f]!.length).fill(1);
  });
  for (const { groups } of splits)
    for (const { copy, prior } of groups) {
      scopes.push(Int32Array.of(copy));
      tables.push(prior);
    }
  return { component: { sizes: Int32Array.from(sizes), scopes, tables }, splits, splitOf };
}

/** What each locus says of its choices on average, with every choice split, and how much they depend on each other. */
function weigh(choices: readonly Choice[], apart: Omit<Relaxed, 'order'>, order: EliminationOrder): void {
  const tree = new JunctionTree(apart.component, order);
  if (!tree.collect()) return;
  tree.distribute();
  const marginals = tree.marginals();
  for (const { weights, ties } of choices) {
    const prior = normalised(weights);
    for (const tie of ties) {
      let strength = 0;
      for (const f of tie.factors) {
        const { chances, dependence } = againstFirst(marginals[f]!, prior.length);
        strength += dependence;
        tie.said = chances.map((p, s) => (prior[s]! > 0 ? p / prior[s]! : 0));
      }
      tie.strength = strength;
    }
  }
}

/** Of a joint marginal with a choice as its first axis: the chance of each state, and chi-square against independence. */
function againstFirst(marginal: Float64Array, states: number): { chances: Float64Array; dependence: number } {
  const width = marginal.length / states;
  const chances = new Float64Array(states);
  const others = new Float64Array(width);
  marginal.forEach((p, at) => {
    chances[Math.floor(at / width)]! += p;
    others[at % width]! += p;
  });
  let sum = 0;
  marginal.forEach((p, at) => {
    const free = chances[Math.floor(at / width)]! * others[at % width]!;
    if (free > 0) sum += (p * p) / free;
  });
  return { chances, dependence: Math.max(0, sum - 1) };
}

function normalised(weights: Float64Array): Float64Array {
  const sum = weights.reduce((a, b) => a + b, 0);
  return weights.map((weight) => weight / sum);
}
