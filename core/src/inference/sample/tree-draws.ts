import type { JunctionTree } from '../junction-tree.ts';
import { drawState } from '../table-arithmetic.ts';

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
      addColumn(starts, draws[given]!, stride);
      stride *= sizes[given]!;
    }
    const into = draws[variable]!;
    for (let n = 0; n < count; n++) into[n] = drawState(tree.beliefs[b]!, starts[n]!, own, random);
  }
  return draws;
}

/** Adds the states of a variable, times a stride, to where each draw falls in a table. */
export function addColumn(at: Int32Array, states: Uint8Array, stride: number): void {
  for (let n = 0; n < at.length; n++) at[n]! += states[n]! * stride;
}
