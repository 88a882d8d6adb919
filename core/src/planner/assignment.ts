/**
 * The assignment of rows to columns with the greatest total value, each column used once: the Hungarian method with
 * potentials (Kuhn 1955, Naval Research Logistics Quarterly 2, 83-97; in the O(n^2 m) form by shortest augmenting paths,
 * Jonker & Volgenant 1987, Computing 38, 325-340).
 *
 * @param value - rows by columns; at least as many columns as rows; -Infinity forbids a place
 * @returns the column of each row
 */
export function bestAssignment(value: readonly (readonly number[])[]): number[] {
  const rows = value.length;
  const columns = value[0]?.length ?? 0;
  const rowOf = new Int32Array(columns + 1).fill(-1);
  const u = new Float64Array(rows + 1);
  const v = new Float64Array(columns + 1);
  for (let row = 0; row < rows; row++) {
    // Column number `columns` is a stand-in from which the search for a free column starts.
    rowOf[columns] = row;
    const least = new Float64Array(columns).fill(Infinity);
    const from = new Int32Array(columns).fill(-1);
    const done = new Uint8Array(columns + 1);
    let at = columns;
    while (rowOf[at] !== -1) {
      done[at] = 1;
      const here = rowOf[at]!;
      let delta = Infinity;
      let next = -1;
      for (let column = 0; column < columns; column++) {
        if (done[column]) continue;
        const worth = value[here]![column]!;
        const cost = (worth === -Infinity ? FORBIDDEN : -worth) - u[here]! - v[column]!;
        if (cost < least[column]!) {
          least[column] = cost;
          from[column] = at;
        }
        if (least[column]! < delta) {
          delta = least[column]!;
          next = column;
        }
      }
      for (let column = 0; column <= columns; column++) {
        if (done[column]) {
          u[rowOf[column]!]! += delta;
          v[column]! -= delta;
        } else if (column < columns) least[column]! -= delta;
      }
      at = next;
    }
    while (at !== columns) {
      const before = from[at]!;
      rowOf[at] = rowOf[before]!;
      at = before;
    }
  }
  const result = new Array<number>(rows).fill(-1);
  for (let column = 0; column < columns; column++) if (rowOf[column]! >= 0) result[rowOf[column]!] = column;
  return result;
}

/** Dearer than any sum of real values, and small enough to keep their digits. */
const FORBIDDEN = 1e6;
