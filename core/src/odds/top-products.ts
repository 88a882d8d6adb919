/** One choice of a list, with its weight. */
export interface Choice {
  readonly weight: number;
}

/**
 * The products of one choice from each list, heaviest first, without building the whole product.
 *
 * Best-first search over positions in the sorted lists: a successor moves one list one place on, and only lists from the
 * last moved one, so each combination is reached once. Cost: O(K n log(K n)) for the first K of n lists.
 *
 * @param lists - sorted here by weight, heaviest first
 * @yields the index chosen in each sorted list, and the product of the weights
 */
export function* topProducts<T extends Choice>(
  lists: readonly (readonly T[])[],
): Generator<{ readonly chosen: readonly T[]; readonly weight: number }> {
  const sorted = lists.map((list) => list.toSorted((a, b) => b.weight - a.weight));
  if (sorted.some((list) => list.length === 0)) return;
  const product = (at: readonly number[]): number =>
    at.reduce((total, index, list) => total * sorted[list]![index]!.weight, 1);
  const start = sorted.map(() => 0);
  const heap: { at: number[]; from: number; weight: number }[] = [
    { at: start, from: 0, weight: product(start) },
  ];
  while (heap.length > 0) {
    const best = pop(heap);
    yield { chosen: best.at.map((index, list) => sorted[list]![index]!), weight: best.weight };
    for (let list = best.from; list < sorted.length; list++) {
      if (best.at[list]! + 1 >= sorted[list]!.length) continue;
      const at = best.at.with(list, best.at[list]! + 1);
      push(heap, { at, from: list, weight: product(at) });
    }
  }
}

function push<T extends { weight: number }>(heap: T[], item: T): void {
  let at = heap.push(item) - 1;
  while (at > 0) {
    const above = (at - 1) >> 1;
    if (heap[above]!.weight >= item.weight) break;
    heap[at] = heap[above]!;
    at = above;
  }
  heap[at] = item;
}

function pop<T extends { weight: number }>(heap: T[]): T {
  const top = heap[0]!;
  const last = heap.pop()!;
  if (heap.length === 0) return top;
  let at = 0;
  for (;;) {
    const left = 2 * at + 1;
    if (left >= heap.length) break;
    const right = left + 1;
    const child = right < heap.length && heap[right]!.weight > heap[left]!.weight ? right : left;
    if (heap[child]!.weight <= last.weight) break;
    heap[at] = heap[child]!;
    at = child;
  }
  heap[at] = last;
  return top;
}
