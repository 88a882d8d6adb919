import fc from 'fast-check';
import { expect, test } from 'vitest';
import { ModelParts } from './model-parts.ts';
import { withoutIdleAxes } from './idle-axes.ts';
import { addCandidateTables } from './sire-factors.ts';

/* Reference: the product of the tables as they are written, entry by entry. */

const SIRE = -7;
const SIZES = [2, 3, 2];

/** A table over some of three variables, of few different numbers, so that axes often say nothing. */
const anyTable = fc
  .record({
    scope: fc.subarray([0, 1, 2]),
    seed: fc.array(fc.constantFrom(0, 0.25, 0.5), { minLength: 12, maxLength: 12 }),
  })
  .map(({ scope, seed }) => {
    const sizes = scope.map((variable) => SIZES[variable]!);
    const length = sizes.reduce((a, b) => a * b, 1);
    return {
      name: 1,
      scope,
      sizes,
      states: sizes.map(() => 0),
      table: Float64Array.from(seed.slice(0, length)),
    };
  });

function valueAt(
  { scope, sizes, table }: { scope: readonly number[]; sizes: readonly number[]; table: Float64Array },
  state: ReadonlyMap<number, number>,
): number {
  return table[scope.reduce((place, variable, axis) => place * sizes[axis]! + state.get(variable)!, 0)]!;
}

function* states(): Generator<Map<number, number>> {
  for (let a = 0; a < 2; a++)
    for (let b = 0; b < 3; b++)
      for (let c = 0; c < 2; c++)
        yield new Map([
          [0, a],
          [1, b],
          [2, c],
        ]);
}

test('an axis that says nothing goes, and every entry stays', () => {
  fc.assert(
    fc.property(anyTable, (factor) => {
      const reduced = withoutIdleAxes(factor);
      for (const state of states()) expect(valueAt(reduced, state)).toBe(valueAt(factor, state));
      // What is left matters: some entry changes with each axis.
      reduced.scope.forEach((variable) => {
        const changes = [...states()].some((state) => {
          const other = new Map(state).set(variable, (state.get(variable)! + 1) % SIZES[variable]!);
          return valueAt(reduced, state) !== valueAt(reduced, other);
        });
        expect(changes).toBe(true);
      });
    }),
  );
});

test('what candidate sires say multiplies to what it was, however it is divided up', () => {
  fc.assert(
    fc.property(fc.array(anyTable, { minLength: 2, maxLength: 4 }), (tables) => {
      const parts = new ModelParts();
      addCandidateTables(
        parts,
        { sire: SIRE, candidates: tables.length, name: 99 },
        tables.map((table, n) => ({ ...table, name: n, candidates: [n] })),
      );
      for (const state of states()) {
        tables.forEach((table, chosen) => {
          const all = new Map(state).set(SIRE, chosen);
          const product = parts.factors.reduce(
            (p, factor) => p * valueAt(factor, all),
            Math.exp(parts.logConstant),
          );
          expect(product).toBeCloseTo(valueAt(table, state), 12);
        });
      }
    }),
    { numRuns: 300 },
  );
});

test('a locus at which the candidates say the same does not speak of the choice', () => {
  const parts = new ModelParts();
  const table = { scope: [0], sizes: [2], states: [0], table: Float64Array.of(0.5, 1) };
  const places = addCandidateTables(parts, { sire: SIRE, candidates: 2, name: 99 }, [
    { ...table, name: 1, candidates: [0] },
    { ...table, name: 2, candidates: [1] },
  ]);
  expect(parts.factors.map(({ scope }) => scope)).toEqual([[0]]);
  expect(places).toEqual([-1, -1]);
});
