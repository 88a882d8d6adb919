import fc from 'fast-check';
import { expect, test } from 'vitest';
import { topProducts } from './top-products.ts';

const lists = fc.array(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 4 }), {
  minLength: 1,
  maxLength: 5,
});

/** The slow judge: every combination, sorted. */
function allProducts(choices: readonly (readonly number[])[]): number[] {
  return choices
    .reduce<number[]>((products, list) => products.flatMap((p) => list.map((weight) => p * weight)), [1])
    .toSorted((a, b) => b - a);
}

test('products come heaviest first, each combination once', () => {
  fc.assert(
    fc.property(lists, (weights) => {
      const found = [...topProducts(weights.map((list) => list.map((weight) => ({ weight }))))].map(
        (p) => p.weight,
      );
      expect(found).toEqual(allProducts(weights));
    }),
  );
});

test('the first few of a vast product come at once', () => {
  // 4^40 combinations: more than could ever be built.
  const vast = Array.from({ length: 40 }, () => [0.4, 0.3, 0.2, 0.1].map((weight) => ({ weight })));
  const first: number[] = [];
  for (const { weight } of topProducts(vast)) {
    first.push(weight);
    if (first.length === 5) break;
  }
  expect(first[0]).toBeCloseTo(0.4 ** 40, 25);
  expect(first[1]).toBeCloseTo(0.4 ** 39 * 0.3, 25);
});

test('an empty list leaves nothing to choose', () => {
  expect([...topProducts([[{ weight: 1 }], []])]).toEqual([]);
});
