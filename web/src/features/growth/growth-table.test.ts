import { expect, test } from 'vitest';
import { byAge, weightAt } from './growth-table.ts';

test('weights are set beside one another at about the same age', () => {
  const weights = byAge({
    id: 'a',
    number: '2601-01',
    sex: 'male',
    hatchedOn: '2026-01-01',
    weights: [
      { on: '2025-12-30', massG: 999 },
      { on: '2026-01-02', massG: 66 },
      { on: '2026-01-28', massG: 90 },
      { on: '2026-02-04', massG: 96 },
      { on: '2026-08-01', massG: 300 },
    ],
  });
  expect(weights.map(({ age }) => age)).toEqual([1, 27, 34, 212]);
  expect(weightAt(weights, 0)).toBe(66);
  expect(weightAt(weights, 30)).toBe(90);
  expect(weightAt(weights, 90)).toBeNull();
  // Further on a month more or less is the same age.
  expect(weightAt(weights, 190)).toBe(300);
});
