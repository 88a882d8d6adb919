import { describe, expect, test } from 'vitest';
import {
  appetiteWords,
  ageWords,
  agoWords,
  dayWords,
  massWords,
  oddsWords,
  temperatureWords,
} from './format.ts';
import { setUnits } from './reader.ts';

describe('words for numbers', () => {
  test('days', () => {
    expect(dayWords('2026-03-04')).toBe('4 Mar 2026');
    expect(agoWords('2026-03-04', '2026-03-04')).toBe('today');
    expect(agoWords('2026-03-03', '2026-03-04')).toBe('yesterday');
    expect(agoWords('2026-03-07', '2026-03-04')).toBe('in 3 days');
    expect(agoWords('2025-03-04', '2026-03-04')).toBe('4 Mar 2025');
  });

  test('ages', () => {
    expect(ageWords('2026-03-01', '2026-03-04')).toBe('3 days');
    expect(ageWords('2026-01-01', '2026-03-04')).toBe('9 weeks');
    expect(ageWords('2023-03-04', '2026-03-04')).toBe('3.0 years');
  });

  test('masses and temperatures follow the units of the collection', () => {
    expect([massWords(71.5), massWords(1520.4), temperatureWords(29.44)]).toEqual([
      '71.5 g',
      '1,520 g',
      '29.4°C',
    ]);
    setUnits({ massUnit: 'oz', temperatureUnit: 'F' });
    expect([massWords(28.349523125), temperatureWords(29.444444)]).toEqual(['1.00 oz', '85.0°F']);
    setUnits({ massUnit: 'g', temperatureUnit: 'C' });
  });

  test('odds never claim certainty they lack', () => {
    expect(oddsWords(1)).toBe('100%');
    expect(oddsWords(0.99999)).toBe('over 99.9%');
    expect(oddsWords(0.125)).toBe('12.5%');
    expect(oddsWords(0.00001)).toBe('under 0.1%');
  });
});

test('what an animal has eaten is told, and that nothing was offered yet', () => {
  expect(appetiteWords({ takenEver: 0, offeredEver: 0, inARow: 0 })).toBe('no meal offered yet');
  expect(appetiteWords({ takenEver: 1, offeredEver: 1, inARow: 1 })).toBe('1 of 1 meal taken, 1 in a row');
  expect(appetiteWords({ takenEver: 7, offeredEver: 9, inARow: 3 })).toBe('7 of 9 meals taken, 3 in a row');
});
