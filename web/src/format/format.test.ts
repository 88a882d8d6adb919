import { describe, expect, test } from 'vitest';
import { ageWords, agoWords, dayWords, massWords, oddsWords, temperatureWords } from './format.ts';
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
