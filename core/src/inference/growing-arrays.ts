export function withRoom(old: Int32Array, size: number): Int32Array<ArrayBuffer> {
  const roomy = new Int32Array(size + (size >> 3));
  roomy.set(old);
  return roomy;
}

export function bytesWithRoom(old: Uint8Array, size: number): Uint8Array<ArrayBuffer> {
  const roomy = new Uint8Array(size + (size >> 3));
  roomy.set(old);
  return roomy;
}

/** Two lists in ancestral order as one, each animal once. */
export function merged(a: readonly number[], b: readonly number[], rank: Int32Array): number[] {
  const all: number[] = [];
  let i = 0;
  let j = 0;
  while (i < a.length || j < b.length) {
    const fromA = j >= b.length || (i < a.length && rank[a[i]!]! <= rank[b[j]!]!);
    if (fromA && a[i] === b[j]) j++;
    all.push(fromA ? a[i++]! : b[j++]!);
  }
  return all;
}
