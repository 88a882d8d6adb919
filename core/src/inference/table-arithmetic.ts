/* Tables over variables that are known by number: row-major, the last variable of a scope moves fastest. */

/** Entries of a table over these variables. */
export function tableSize(scope: Int32Array, sizes: Int32Array): number {
  let size = 1;
  for (let i = 0; i < scope.length; i++) size *= sizes[scope[i]!]!;
  return size;
}

/** Makes a table add up to 1. */
export function normalise(table: Float64Array): void {
  let sum = 0;
  for (let at = 0; at < table.length; at++) sum += table[at]!;
  for (let at = 0; at < table.length; at++) table[at]! /= sum;
}

/** Draws a state by chances that need not add up to 1. @param start - where its chances stand, so many as it has states */
export function drawState(
  chances: Float64Array,
  start: number,
  states: number,
  random: () => number,
): number {
  let sum = 0;
  for (let s = 0; s < states; s++) sum += chances[start + s]!;
  let left = random() * sum;
  let chosen = 0;
  for (; chosen < states - 1; chosen++) {
    left -= chances[start + chosen]!;
    if (left < 0) break;
  }
  while (chances[start + chosen] === 0) chosen--;
  return chosen;
}

/** One map at a time is in use: making a new one for each of thousands of small tables costs more than filling it. */
let scratch = new Int32Array(2 ** 12);

/**
 * Where each entry of a table over `scope` falls in a table over `part`, which holds some of its variables. Good until the
 * next call.
 */
export function positionsIn(scope: Int32Array, part: Int32Array, sizes: Int32Array): Int32Array {
  const size = tableSize(scope, sizes);
  if (scratch.length < size) scratch = new Int32Array(size);
  const map = scratch;
  map[0] = 0;
  let filled = 1;
  for (let axis = scope.length - 1; axis >= 0; axis--) {
    const states = sizes[scope[axis]!]!;
    const at = part.indexOf(scope[axis]!);
    let stride = at < 0 ? 0 : 1;
    for (let other = at + 1; stride > 0 && other < part.length; other++) stride *= sizes[part[other]!]!;
    for (let s = 1; s < states; s++) {
      const offset = s * stride;
      const start = s * filled;
      for (let j = 0; j < filled; j++) map[start + j] = map[j]! + offset;
    }
    filled *= states;
  }
  return map;
}

/** Multiplies a table by a factor over some of its variables. */
export function multiplyInto(
  table: Float64Array,
  scope: Int32Array,
  part: Int32Array,
  factor: Float64Array,
  sizes: Int32Array,
): void {
  const map = positionsIn(scope, part, sizes);
  for (let at = 0; at < table.length; at++) table[at]! *= factor[map[at]!]!;
}

/** A table summed down to some of its variables, in their order. */
export function marginal(
  table: Float64Array,
  scope: Int32Array,
  part: Int32Array,
  sizes: Int32Array,
): Float64Array {
  const map = positionsIn(scope, part, sizes);
  const sums = new Float64Array(tableSize(part, sizes));
  for (let at = 0; at < table.length; at++) sums[map[at]!]! += table[at]!;
  return sums;
}
