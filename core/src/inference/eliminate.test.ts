import { describe, expect, test } from 'vitest';
import { CostError } from '../errors.ts';
import { eliminate } from './eliminate.ts';
import { multiply, sumTo, type Factor } from './factor.ts';

const factor = (vars: number[], ...table: number[]): Factor => ({ vars, table: Float64Array.from(table) });

describe('elimination', () => {
  test('the burglar alarm answers as in the textbook (Pearl 1988; figures of Russell & Norvig, AIMA, fig. 14.2)', () => {
    // Burglary, earthquake, alarm, John calls, Mary calls; state 0 is "no". P(burglary | both call) = 0.284.
    const { marginals } = eliminate(
      [2, 2, 2, 2, 2],
      [
        factor([0], 0.999, 0.001),
        factor([1], 0.998, 0.002),
        factor([0, 1, 2], 0.999, 0.001, 0.71, 0.29, 0.06, 0.94, 0.05, 0.95),
        factor([2, 3], 0.95, 0.05, 0.1, 0.9),
        factor([2, 4], 0.99, 0.01, 0.3, 0.7),
        factor([3], 0, 1),
        factor([4], 0, 1),
      ],
    );
    expect(marginals[0]![1]).toBeCloseTo(0.284, 3);
  });

  test('a chain of two thousand variables does not underflow', () => {
    const n = 2000;
    const links = Array.from({ length: n - 1 }, (_, i) => factor([i, i + 1], 1e-3, 1e-5, 1e-5, 1e-3));
    const { logTotal, marginals } = eliminate(Array(n).fill(2) as number[], [factor([0], 1, 0), ...links]);
    // Each link multiplies the total by 1e-3 + 1e-5 whatever the state.
    expect(logTotal).toBeCloseTo((n - 1) * Math.log(1.01e-3), 6);
    expect(marginals[n - 1]![0]! + marginals[n - 1]![1]!).toBeCloseTo(1, 12);
  });

  test('what cannot be is said, not divided by', () => {
    expect(eliminate([2], [factor([0], 1, 0), factor([0], 0, 1)])).toEqual({
      logTotal: -Infinity,
      marginals: [],
    });
  });

  test('a table over the limit is refused with its size', () => {
    const all = factor([0, 1, 2], ...Array<number>(27).fill(1));
    expect(() => eliminate([3, 3, 3], [all], 20)).toThrow(CostError);
    expect(() => eliminate([3, 3, 3], [all], 27)).not.toThrow();
  });
});

describe('tables', () => {
  test('multiply over a scope and sum to a part of it', () => {
    const sizes = [2, 3];
    const product = multiply([factor([0], 2, 5), factor([1], 1, 10, 100)], [1, 0], sizes);
    expect([...product.table]).toEqual([2, 5, 20, 50, 200, 500]);
    expect([...sumTo(product, [0], sizes).table]).toEqual([222, 555]);
    expect([...sumTo(product, [], sizes).table]).toEqual([777]);
  });
});
