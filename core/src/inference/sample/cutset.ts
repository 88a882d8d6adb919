import type { Component } from '../junction-tree.ts';

/**
 * Variables to hold fast so that the rest can be summed exactly within tables of a given size: whenever the cheapest
 * variable would make a wider one, the variable of that table that was held least often so far (then the one with most
 * ties) is held instead.
 *
 * @param times - how often each variable has been held already
 */
export function chooseCutset(
  { sizes, scopes }: Component,
  widest: number,
  times: Int32Array,
  random: () => number,
): number[] {
  const neighbours: Set<number>[] = Array.from(sizes, () => new Set<number>());
  for (const scope of scopes)
    for (const a of scope) for (const b of scope) if (a !== b) neighbours[a]!.add(b);
  const weight = (variable: number): number =>
    [...neighbours[variable]!].reduce((size, other) => size * sizes[other]!, sizes[variable]!);
  const left = new Set(sizes.keys());
  const weights = Float64Array.from(sizes, (_, variable) => weight(variable));
  const jitter = Float64Array.from(sizes, () => random());
  const held: number[] = [];
  const remove = (variable: number): void => {
    for (const other of neighbours[variable]!) neighbours[other]!.delete(variable);
    left.delete(variable);
  };
  while (left.size > 0) {
    let next = -1;
    for (const variable of left) if (next < 0 || weights[variable]! < weights[next]!) next = variable;
    const near = [...neighbours[next]!];
    if (weights[next]! <= widest) {
      remove(next);
      for (const a of near) for (const b of near) if (a !== b) neighbours[a]!.add(b);
      for (const other of near) weights[other] = weight(other);
      continue;
    }
    const rank = (variable: number): number =>
      times[variable]! - neighbours[variable]!.size / 1e4 - jitter[variable]! / 10;
    const hold = [next, ...near].reduce((a, b) => (rank(b) < rank(a) ? b : a));
    const touched = [...neighbours[hold]!];
    remove(hold);
    held.push(hold);
    for (const other of touched) weights[other] = weight(other);
  }
  return held;
}
