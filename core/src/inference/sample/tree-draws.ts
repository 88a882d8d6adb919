import type { JunctionTree } from '../junction-tree.ts';

/** The states of all variables in some independent draws: by variable, then by draw. */
export type Draws = readonly Uint8Array[];

/** Draws joint states from a junction tree. @param tree - after `distribute` */
export function drawFromTree(tree: JunctionTree, count: number, random: () => number): Draws {
  const { sizes } = tree.component;
  const draws = Array.from(sizes, () => new Uint8Array(count));
  const starts = new Int32Array(count);
  for (let b = tree.scopes.length - 1; b >= 0; b--) {
    const variable = tree.scopes[b]!.at(-1)!;
    const own = sizes[variable]!;
    let stride = own;
    starts.fill(0);
    for (let axis = tree.separators[b]!.length - 1; axis >= 0; axis--) {
      const given = tree.separators[b]![axis]!;
      const states = draws[given]!;
      for (let n = 0; n < count; n++) starts[n]! += states[n]! * stride;
      stride *= sizes[given]!;
    }
    drawColumn(tree.beliefs[b]!, own, starts, draws[variable]!, random);
  }
  return draws;
}

/** Draws one variable in every draw. @param starts - where its chances begin, given what is drawn already */
function drawColumn(
  chances: Float64Array,
  own: number,
  starts: Int32Array,
  into: Uint8Array,
  random: () => number,
): void {
  for (let n = 0; n < into.length; n++) {
    const start = starts[n]!;
    let sum = 0;
    for (let s = 0; s < own; s++) sum += chances[start + s]!;
    let left = random() * sum;
    let chosen = 0;
    for (; chosen < own - 1; chosen++) {
      left -= chances[start + chosen]!;
      if (left < 0) break;
    }
    while (chances[start + chosen] === 0) chosen--;
    into[n] = chosen;
  }
}
