import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { GRAMS_PER_OUNCE, Reader } from './reader.ts';

const british = new Reader({ locale: 'en-GB', massUnit: 'g', temperatureUnit: 'C' });
const american = new Reader({ locale: 'en-US', massUnit: 'oz', temperatureUnit: 'F' });
const german = new Reader({ locale: 'de-DE', massUnit: 'g', temperatureUnit: 'C' });

// How a locale writes numbers, units and dates: Unicode CLDR, by way of Intl.
describe('what a reader is told', () => {
  test('masses in the unit of the reader', () => {
    expect(british.mass(342.4)).toBe('342 g');
    expect(british.mass(26.46)).toBe('26.5 g');
    expect(british.mass(1620)).toBe('1,620 g');
    // 1 oz is 28.349523125 g by definition (international yard and pound agreement, 1959).
    expect(american.mass(342.4)).toBe('12.08 oz');
    expect(american.mass(GRAMS_PER_OUNCE)).toBe('1.00 oz');
    expect(british.massSpan(190, 230)).toBe('190 g to 230 g');
  });

  test('temperatures in the unit of the reader', () => {
    expect(british.temperature(31.4)).toBe('31.4°C');
    // The boiling and the freezing point of water.
    expect(american.temperature(100)).toBe('212.0°F');
    expect(american.temperature(0)).toBe('32.0°F');
    expect(german.temperature(31.4)).toMatch(/^31,4\s°C$/);
  });

  test('days in the order of the locale', () => {
    expect(british.day('2026-03-04')).toBe('4 Mar 2026');
    expect(american.day('2026-03-04')).toBe('Mar 4, 2026');
    expect(german.day('2026-03-04')).toBe('4. März 2026');
    expect(british.shortDay('2026-03-04')).toBe('4 Mar');
    expect(british.daySpan('2025-12-28', '2026-01-03')).toBe('28 Dec 2025 to 3 Jan 2026');
    expect(british.daySpan('2026-11-25', '2026-12-06')).toBe('25 Nov to 6 Dec');
    expect(british.daySpan('2026-11-25', '2026-11-25')).toBe('about 25 Nov');
    expect(british.moment('2026-03-04T21:05')).toBe('4 Mar 2026, 21:05');
    expect(american.moment('2026-03-04T21:05')).toBe('Mar 4, 2026, 09:05 PM');
  });

  test('counts, shares, lists, and days by their distance', () => {
    expect([0, 1, 2].map((n) => british.count(n, 'meal', 'meals'))).toEqual(['0 meals', '1 meal', '2 meals']);
    expect(british.percent(0.125, 1)).toBe('12.5%');
    expect(german.percent(0.125, 1)).toMatch(/^12,5\s%$/);
    expect(british.list(['A', 'B', 'C'])).toBe('A, B and C');
    const ago = (day: string): string => british.ago(day, '2026-05-14');
    expect(['2026-05-14', '2026-05-13', '2026-05-15', '2026-05-02', '2026-01-02'].map(ago)).toEqual([
      'today',
      'yesterday',
      'tomorrow',
      '12 days ago',
      '2 Jan 2026',
    ]);
  });

  test('a day is the same day in every locale and time zone', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1990-01-01'), max: new Date('2090-01-01'), noInvalidDate: true }),
        (date) => {
          const day = date.toISOString().slice(0, 10);
          const [year, month, dayOfMonth] = day.split('-').map(Number);
          // As a program would read it back: the words of en-GB in UTC.
          const back = new Date(`${british.day(day)} UTC`);
          expect([back.getUTCFullYear(), back.getUTCMonth() + 1, back.getUTCDate()]).toEqual([
            year,
            month,
            dayOfMonth,
          ]);
        },
      ),
    );
  });
});
