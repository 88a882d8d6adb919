import { luckOf } from '@karyotome/core';
import { expect, test } from 'vitest';
import { luckWords } from './luck.ts';
import { Reader } from './reader.ts';

const READER = new Reader({ locale: 'en', massUnit: 'g', temperatureUnit: 'C' });
const pair = (young: number, hits: number) => ({ scenarios: [{ weight: 1, p: 0.25 }], young, hits });

test('luck is told with the tail that it lies in', () => {
  // Binomial, n = 12, p = 1/4: 0.75^12 = 0.0317; P(X >= 7) = 0.0143 (textbook tables).
  expect(luckWords(luckOf([pair(12, 0)]), READER)).toEqual({
    text: '0 of 12 hatchlings; 3 were to be expected.',
    chance: 'Unusually few. Chance alone gives as few or fewer 3.17% of the time.',
  });
  expect(luckWords(luckOf([pair(12, 7)]), READER).chance).toBe(
    'Unusually many. Chance alone gives as many or more 1.43% of the time.',
  );
  expect(luckWords(luckOf([pair(1, 0)]), READER)).toEqual({
    text: '0 of 1 hatchling; 0.3 were to be expected.',
    chance: 'Within what chance gives. Chance alone gives as few or fewer 75% of the time.',
  });
});
