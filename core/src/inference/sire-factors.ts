import type { Factor } from './factor.ts';
import type { ModelParts, Written } from './model-parts.ts';

/** Tables closer than this, relative to their largest entry, are one: sums in another order differ by rounding. */
const ROUNDING = 1e-14;

/** A table without the axes that it does not depend on: they would tie variables together that have nothing to do with it. */
export function withoutIdleAxes<F extends Factor>(factor: F): F {
  let { table } = factor;
  const kept: number[] = [];
  let inner = 1;
  for (let axis = factor.scope.length - 1; axis >= 0; axis--) {
    const states = factor.sizes[axis]!;
    const without = withoutAxis(table, states, inner);
    if (without) table = without;
    else {
      kept.unshift(axis);
      inner *= states;
    }
  }
  if (kept.length === factor.scope.length) return factor;
  const of = (list: readonly number[]): number[] => kept.map((axis) => list[axis]!);
  return { ...factor, scope: of(factor.scope), sizes: of(factor.sizes), states: of(factor.states), table };
}

/** A table over some of its axes only, which it is known not to depend on beyond. @param kept - variables */
export function keepAxes<F extends Factor>(factor: F, kept: ReadonlySet<number>): F {
  let { table } = factor;
  const axes = [...factor.scope.keys()].filter((axis) => kept.has(factor.scope[axis]!));
  let inner = 1;
  for (let axis = factor.scope.length - 1; axis >= 0; axis--) {
    const states = factor.sizes[axis]!;
    if (!axes.includes(axis)) table = table.filter((_, at) => Math.floor(at / inner) % states === 0);
    else inner *= states;
  }
  const of = (list: readonly number[]): number[] => axes.map((axis) => list[axis]!);
  return { ...factor, scope: of(factor.scope), sizes: of(factor.sizes), states: of(factor.states), table };
}

/** @returns null where the table depends on this axis. @param inner - entries for each state of the axis */
function withoutAxis(table: Float64Array, states: number, inner: number): Float64Array | null {
  const block = states * inner;
  for (let from = 0; from < table.length; from += block) {
    for (let at = from; at < from + inner; at++) {
      const first = table[at]!;
      for (let other = at + inner; other < from + block; other += inner)
        if (Math.abs(table[other]! - first) > ROUNDING * first) return null;
    }
  }
  const without = new Float64Array(table.length / states);
  for (let into = 0, from = 0; from < table.length; from += block)
    for (let at = from; at < from + inner; at++) without[into++] = table[at]!;
  return without;
}

/** What one locus says of an animal if one of some candidates is its sire, who transmit alike. */
export interface CandidateTable extends Written {
  /** Which of the open candidates, by their place. */
  readonly candidates: readonly number[];
}

/**
 * Adds what one locus says of an animal whose sire is open: for each candidate a table that counts only where he is the sire.
 * What is the same whoever the sire is does not tie the locus to the choice; and what only weighs the candidates goes into one
 * table over the choice.
 *
 * @param sire - the variable of the choice, with so many `candidates`
 * @param name - of the table over the choice
 * @returns for each table the place of the factor that has all its axes and the choice; -1 where there is none
 */
export function addCandidateTables(
  parts: ModelParts,
  { sire, candidates, name }: { sire: number; candidates: number; name: number },
  tables: readonly CandidateTable[],
): number[] {
  const weights = new Float64Array(candidates);
  const scaled = tables.map((whole) => {
    const reduced = withoutIdleAxes(whole);
    const scale = reduced.table.reduce((a, b) => Math.max(a, b), 0);
    for (const candidate of whole.candidates) weights[candidate] = scale;
    return { ...reduced, table: reduced.table.map((p) => (scale > 0 ? p / scale : 1)) };
  });
  const heaviest = weights.reduce((a, b) => Math.max(a, b), 0);
  if (weights.every((weight) => Math.abs(weight - heaviest) <= ROUNDING * heaviest))
    parts.logConstant += Math.log(heaviest);
  else parts.add({ name, scope: [sire], sizes: [candidates], states: [0], table: weights });
  const places = tables.map(() => -1);
  const done = new Set<number>();
  scaled.forEach((one, t) => {
    if (done.has(t) || one.scope.length === 0) return;
    const alike = [...tables.keys()].filter((other) => isSameTable(one, scaled[other]!));
    for (const other of alike) done.add(other);
    if (alike.length === tables.length) {
      parts.add(one);
      return;
    }
    const chosen = new Set(alike.flatMap((other) => tables[other]!.candidates));
    const place = parts.add({
      name: one.name,
      scope: [sire, ...one.scope],
      sizes: [candidates, ...one.sizes],
      states: [0, ...one.states],
      table: overChoice(candidates, chosen, one.table),
    });
    for (const other of alike) if (tables[other]!.scope.length === one.scope.length) places[other] = place;
  });
  return places;
}

/** A table that counts only where one of these is chosen, and is 1 elsewhere. */
function overChoice(candidates: number, chosen: ReadonlySet<number>, table: Float64Array): Float64Array {
  const over = new Float64Array(candidates * table.length).fill(1);
  for (const candidate of chosen) over.set(table, candidate * table.length);
  return over;
}

function isSameTable(a: Factor, b: Factor): boolean {
  return (
    a.scope.length === b.scope.length &&
    a.scope.every((variable, axis) => variable === b.scope[axis]) &&
    a.table.every((p, at) => Math.abs(p - b.table[at]!) <= ROUNDING)
  );
}
