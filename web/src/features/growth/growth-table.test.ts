import { expect, test } from 'vitest';
import { byAge, labelShifts, topOf, weightAt } from './growth-table.ts';

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

test('names at the ends of lines keep apart, and stay where they are where there is room', () => {
  // At one pixel a gram: 300 stands alone, of 200, 198 and 190 two are moved down.
  expect(labelShifts([198, 300, 200, 190], 1)).toEqual([12, 0, 0, 18]);
  expect(labelShifts([], 1)).toEqual([]);
});

test('an axis ends at a round number above the largest value', () => {
  expect([62, 845, 1500, 2250, 29].map(topOf)).toEqual([70, 1000, 1600, 2500, 30]);
  expect(topOf(0)).toBe(1);
});
