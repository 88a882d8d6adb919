import { type DateOrder, type DecimalMark, type FileMassUnit } from '@karyotome/contract';
import { addDays, isIsoDay } from '@karyotome/core';
import { GRAMS_PER_OUNCE } from '@karyotome/words';

/* How a file writes days and numbers. */

/** A pound is sixteen ounces (international avoirdupois). */
const GRAMS: Readonly<Record<FileMassUnit, number>> = {
  g: 1,
  kg: 1_000,
  oz: GRAMS_PER_OUNCE,
  lb: 16 * GRAMS_PER_OUNCE,
};
const UNIT = /\s*(g|gr|grams?|kg|oz|ounces?|lbs?|pounds?)\.?$/i;
const UNIT_OF: Readonly<Record<string, FileMassUnit>> = { k: 'kg', o: 'oz', l: 'lb', p: 'lb', g: 'g' };

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const THREE_NUMBERS = /^(\d{1,4})\s*[-./ ]\s*(\d{1,2})\s*[-./ ]\s*(\d{1,4})(?:[T ,].*)?$/;
const MONTH_SECOND = /^(\d{1,2})[-. ]+([a-z]{3,9})\.?,?[-. ]+(\d{2,4})$/i;
const MONTH_FIRST = /^([a-z]{3,9})\.?[- ]+(\d{1,2})(?:st|nd|rd|th)?,?[- ]+(\d{4})$/i;
/** Days since 30 December 1899, as spreadsheet programs count them: from 1954 to 2119. */
const SERIAL = /^(\d{5})(?:\.\d+)?$/;
const FIRST_SERIAL = 20_000;
const LAST_SERIAL = 80_000;

/**
 * A day in the file's own order; days with a month's name, and ISO 8601, are read in any.
 *
 * @returns ISO 8601; null where it is no day
 */
export function readDay(text: string, order: DateOrder): string | null {
  const serial = SERIAL.exec(text);
  if (serial) {
    const days = Number(serial[1]);
    return days >= FIRST_SERIAL && days <= LAST_SERIAL ? addDays('1899-12-30', days) : null;
  }
  const named = MONTH_SECOND.exec(text) ?? MONTH_FIRST.exec(text);
  if (named) {
    const isFirst = MONTHS.includes(named[1]!.slice(0, 3).toLowerCase());
    const [day, month] = isFirst ? [named[2]!, named[1]!] : [named[1]!, named[2]!];
    return dayOf(named[3]!, MONTHS.indexOf(month.slice(0, 3).toLowerCase()) + 1, Number(day));
  }
  const [, a, b, c] = THREE_NUMBERS.exec(text) ?? [];
  if (a === undefined || b === undefined || c === undefined) return null;
  if (a.length === 4) return dayOf(a, Number(b), Number(c));
  if (order === 'ymd') return c.length > 2 ? null : dayOf(a, Number(b), Number(c));
  return order === 'dmy' ? dayOf(c, Number(b), Number(a)) : dayOf(c, Number(a), Number(b));
}

function dayOf(year: string, month: number, day: number): string | null {
  if (year.length !== 4 && year.length !== 2) return null;
  // Nobody keeps records of ball pythons from before 1950 (the first day that fields take).
  const whole = year.length === 4 ? year : `${Number(year) < 50 ? '20' : '19'}${year}`;
  const iso = `${whole}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  return isIsoDay(iso) ? iso : null;
}

/** The order in which most of some days can be read, and whether no other would do as well. */
export function orderOf(
  days: readonly string[],
  preferred: DateOrder,
): { order: DateOrder; isSure: boolean } {
  const count = (order: DateOrder): number => days.filter((day) => readDay(day, order) !== null).length;
  const counts = (['ymd', 'dmy', 'mdy'] as const).map((order) => ({ order, read: count(order) }));
  const most = Math.max(...counts.map(({ read }) => read));
  const best = counts.filter(({ read }) => read === most).map(({ order }) => order);
  const order = best.includes(preferred) ? preferred : best.includes('dmy') ? 'dmy' : best[0]!;
  // Read alike in every order, as with a month's name or a year of four digits in front, they leave no doubt.
  const isSure = best.every((other) => days.every((day) => readDay(day, other) === readDay(day, order)));
  return { order, isSure };
}

/** @returns null where it is no number */
export function readNumber(text: string, mark: DecimalMark): number | null {
  const plain = text.replaceAll(/[\s'\u00a0\u202f’]/g, '');
  const [thousands, decimal] = mark === 'comma' ? ['.', ','] : [',', '.'];
  const grouped = new RegExp(`^[+-]?\\d{1,3}(\\${thousands}\\d{3})+(\\${decimal}\\d+)?$`);
  const bare = new RegExp(`^[+-]?(\\d+(\\${decimal}\\d*)?|\\${decimal}\\d+)$`);
  if (!bare.test(plain) && !grouped.test(plain)) return null;
  return Number(plain.replaceAll(thousands, '').replace(decimal, '.'));
}

/** The mark by which more of some numbers can be read; a point where both do. */
export function markOf(numbers: readonly string[]): DecimalMark {
  const count = (mark: DecimalMark): number => {
    const values = numbers.map((text) => readNumber(withoutUnit(text), mark));
    // "1.234" is a thousand to one and one and a bit to the other: whoever weighs does not do so to the milligram.
    return values.filter((value) => value !== null && Number.isInteger(value * 100)).length;
  };
  return count('comma') > count('point') ? 'comma' : 'point';
}

const withoutUnit = (text: string): string => text.replace(UNIT, '');

/** @param unit - where the cell names none @returns grams, to a tenth; null where it is no weight */
export function readMass(text: string, mark: DecimalMark, unit: FileMassUnit): number | null {
  const value = readNumber(withoutUnit(text), mark);
  if (value === null) return null;
  const named = UNIT.exec(text)?.[1]?.toLowerCase()[0];
  const grams = value * GRAMS[named === undefined ? unit : UNIT_OF[named]!];
  return Math.round(grams * 10) / 10;
}

/** The unit that a heading names; null for none. */
export function unitIn(title: string): FileMassUnit | null {
  const named = /\b(kg|oz|ounces?|lbs?|pounds?|g|grams?)\b/i.exec(title)?.[1]?.toLowerCase()[0];
  return named === undefined ? null : UNIT_OF[named]!;
}
