import type { Factor } from './factor.ts';

/** Tables closer than this, relative to their largest entry, are one: sums in another order differ by rounding. */
export const ROUNDING = 1e-14;

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

/** The variables that a table depends on. */
export function variablesThatMatter({
  scope,
  sizes,
  table,
}: Pick<Factor, 'scope' | 'sizes' | 'table'>): number[] {
  const found: number[] = [];
  let inner = 1;
  for (let axis = scope.length - 1; axis >= 0; axis--) {
    if (!isIdle(table, sizes[axis]!, inner)) found.push(scope[axis]!);
    inner *= sizes[axis]!;
  }
  return found;
}

/** Whether a table is the same for every state of an axis. @param inner - entries for each state of the axis */
function isIdle(table: Float64Array, states: number, inner: number): boolean {
  const block = states * inner;
  for (let from = 0; from < table.length; from += block) {
    for (let at = from; at < from + inner; at++) {
      const first = table[at]!;
      for (let other = at + inner; other < from + block; other += inner)
        if (Math.abs(table[other]! - first) > ROUNDING * first) return false;
    }
  }
  return true;
}

/** @returns null where the table depends on this axis. @param inner - entries for each state of the axis */
function withoutAxis(table: Float64Array, states: number, inner: number): Float64Array | null {
  if (!isIdle(table, states, inner)) return null;
  const block = states * inner;
  const without = new Float64Array(table.length / states);
  for (let into = 0, from = 0; from < table.length; from += block)
    for (let at = from; at < from + inner; at++) without[into++] = table[at]!;
  return without;
}
