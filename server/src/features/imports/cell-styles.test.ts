import { describe, expect, test } from 'vitest';
import { markOf, orderOf, readDay, readMass, readNumber, unitIn } from './cell-styles.ts';

describe('days', () => {
  test.each([
    // ISO 8601-1:2019, 5.2.2.1, in any order.
    ['1985-04-12', 'dmy', '1985-04-12'],
    ['1985-04-12', 'mdy', '1985-04-12'],
    ['1985-04-12T10:15:30', 'dmy', '1985-04-12'],
    // Unicode CLDR: dates in short form of English (United Kingdom, United States), German and Japanese.
    ['03/04/2026', 'dmy', '2026-04-03'],
    ['3/4/26', 'mdy', '2026-03-04'],
    ['03.04.26', 'dmy', '2026-04-03'],
    ['2026/04/03', 'dmy', '2026-04-03'],
    ['26-04-03', 'ymd', '2026-04-03'],
    ['3 Apr 2026', 'mdy', '2026-04-03'],
    ['3-Apr-26', 'mdy', '2026-04-03'],
    ['April 3, 2026', 'dmy', '2026-04-03'],
    // Days of spreadsheet programs: 1 January 2000 is day 36526 (ECMA-376, part 1, 18.17.4.1).
    ['36526', 'dmy', '2000-01-01'],
    ['36526.25', 'dmy', '2000-01-01'],
  ] as const)('%s, %s', (text, order, day) => expect(readDay(text, order)).toBe(day));

  test.each(['31/02/2026', '13/13/2026', '2026', 'soon', '3 Foo 2026', '00/01/2026', '99999', '2026-1'])(
    '%s is none',
    (text) => {
      for (const order of ['dmy', 'mdy', 'ymd'] as const) expect(readDay(text, order)).toBeNull();
    },
  );

  test('the order is found by the days that only one can read', () => {
    expect(orderOf(['03/04/2026', '25/12/2025'], 'mdy')).toEqual({ order: 'dmy', isSure: true });
    expect(orderOf(['03/04/2026', '12/25/2025'], 'dmy')).toEqual({ order: 'mdy', isSure: true });
    expect(orderOf(['2026-04-03', '3 May 2026'], 'dmy')).toEqual({ order: 'dmy', isSure: true });
    expect(orderOf([], 'dmy')).toEqual({ order: 'dmy', isSure: true });
  });

  test('and where both could, that is said', () => {
    expect(orderOf(['03/04/2026', '05/06/2026'], 'dmy')).toEqual({ order: 'dmy', isSure: false });
    expect(orderOf(['03/04/2026', '05/06/2026'], 'mdy')).toEqual({ order: 'mdy', isSure: false });
    // The same number twice is the same day in both.
    expect(orderOf(['04/04/2026'], 'mdy').isSure).toBe(true);
  });
});

describe('numbers', () => {
  test.each([
    ['1234.5', 'point', 1234.5],
    ['1,234.5', 'point', 1234.5],
    ['1.234,5', 'comma', 1234.5],
    ['1 234,5', 'comma', 1234.5],
    ['1’234.5', 'point', 1234.5],
    ['1234', 'comma', 1234],
    ['-3', 'point', -3],
  ] as const)('%s with a %s', (text, mark, value) => expect(readNumber(text, mark)).toBe(value));

  test.each([
    ['1,5', 'point'],
    ['1.5', 'comma'],
    ['1.2.3', 'point'],
    ['heavy', 'point'],
    ['', 'point'],
    ['1,23,456', 'point'],
  ] as const)('%s with a %s is none', (text, mark) => expect(readNumber(text, mark)).toBeNull());

  test('the mark is found by what most numbers need', () => {
    expect(markOf(['84,5', '91,0', '1.210'])).toBe('comma');
    expect(markOf(['84.5', '91.0', '1,210'])).toBe('point');
    expect(markOf(['84 g', '91 g'])).toBe('point');
    expect(markOf(['84,5 g', '91 g'])).toBe('comma');
  });
});

test('weights are read in the unit that the cell names, or else the file', () => {
  // One avoirdupois pound is 453.59237 g exactly, an ounce a sixteenth of it (international agreement of 1959).
  expect(readMass('1', 'point', 'lb')).toBe(453.6);
  expect(readMass('1', 'point', 'oz')).toBe(28.3);
  expect(readMass('1.5 kg', 'point', 'g')).toBe(1500);
  expect(readMass('84 grams', 'point', 'oz')).toBe(84);
  expect(readMass('3 lbs', 'point', 'g')).toBe(1360.8);
  expect(readMass('heavy', 'point', 'g')).toBeNull();
  expect(['Weight (g)', 'Weight oz', 'Weight in lbs', 'Weight', 'Mass [kg]'].map(unitIn)).toEqual([
    'g',
    'oz',
    'lb',
    null,
    'kg',
  ]);
});
