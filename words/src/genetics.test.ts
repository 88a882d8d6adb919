import { expect, test } from 'vitest';
import { conflictWords, explanationWords, lookAgainWords, Reader, sexDoubtWords } from './index.ts';

const metric = new Reader({ locale: 'en-GB', massUnit: 'g', temperatureUnit: 'C' });

test('of genes: a conflict, what may have gone wrong, a sex that does not fit', () => {
  const animals = [
    { id: '1', number: '2601-01', label: 'Clown' },
    { id: '2', number: 'M-01', label: 'Normal' },
  ];
  expect(conflictWords({ locus: 'clown', locusName: 'Clown', animals })).toBe(
    'What was recorded of 2601-01 (Clown), M-01 (Normal) cannot all be true at Clown.',
  );
  expect(conflictWords({ locus: 'sires', locusName: null, animals: animals.slice(0, 1) })).toBe(
    '2601-01 (Clown) cannot be what was recorded whichever candidate is the sire: its recorded family does not allow it.',
  );
  expect(
    explanationWords(
      { kind: 'carries-more', animals, label: 'Clown', sex: 'male', alleles: ['Clown'] },
      metric,
    ),
  ).toBe('2601-01 and M-01 carries Clown, which was not recorded.');
  expect(lookAgainWords(3, 2, metric)).toBe(
    '3 records, looked at again, are enough to settle both contradictions.',
  );
  expect(lookAgainWords(1, 1, metric)).toBe(
    '1 record, looked at again, is enough to settle the contradiction.',
  );
  expect(sexDoubtWords({ label: 'Banana', sex: 'female', p: 0.032, pOther: 0.93 }, metric)).toBe(
    'Banana in a female: 3.2% of this pair’s females and 93% of its males show it. A crossover, or the sex or the identification is wrong: check both',
  );
});
