import { daysBetween, type AnimalStatus } from '@karyotome/core';
import { capital, STATUS_WORDS } from '@karyotome/words';
import { farmClock, farmDayOf, farmToday } from './farm-day.ts';
import { reader } from './reader.ts';

export { sexWords } from '@karyotome/words';
export { farmToday } from './farm-day.ts';
export { oddsWords } from '@karyotome/words';

/** "4 Mar 2026", as the reader's locale writes it. */
export const dayWords = (day: string): string => reader().day(day);

/** "4 Mar", where the year goes without saying. */
export const shortDay = (day: string): string => reader().shortDay(day);

/** "25 Nov to 6 Dec", with the years where they differ; one day as "about 25 Nov". */
export const spanOfDays = (from: string, to: string): string => reader().daySpan(from, to);

/** The farm's day of a moment: "4 Mar 2026". @param moment - RFC 3339 */
export const momentDay = (moment: string): string => dayWords(farmDayOf(moment));

/** "4 Mar 2026, 21:30", by the farm's clocks. @param moment - RFC 3339 */
export const momentWords = (moment: string): string => reader().moment(farmClock(moment));

/** "since today", "since yesterday", "for 12 days" */
export function sinceWords(day: string, today = farmToday()): string {
  const days = daysBetween(day, today);
  return days < 2 ? `since ${agoWords(day, today)}` : `for ${days} days`;
}

/** "today", "yesterday", "in 3 days", "12 days ago", then the date. */
export const agoWords = (day: string, today = farmToday()): string => reader().ago(day, today);

/** "5 weeks", "14 months", "3 years" */
export const ageWords = (hatchedOn: string, today = farmToday()): string =>
  reader().age(daysBetween(hatchedOn, today));

/** Grams or ounces, with the unit. @param massG - grams */
export const massWords = (massG: number): string => reader().mass(massG);

/** Degrees Celsius or Fahrenheit, with the unit. @param celsius - degrees Celsius */
export const temperatureWords = (celsius: number): string => reader().temperature(celsius);

export const statusWords = (status: AnimalStatus): string => capital(STATUS_WORDS[status]);

/** "10,000" */
export const numberWords = (n: number): string => reader().number(n);

/** "1 animal", "10,000 animals" */
export const countWords = (n: number, one: string, other: string): string => reader().count(n, one, other);

/** "7.6 MB" */
export const fileSizeWords = (bytes: number): string => reader().fileSize(bytes);

/** "€450" @param currency - ISO 4217 */
export const moneyWords = (amount: number, currency: string): string => reader().money(amount, currency);
export const sexSign = (sex: string): string => (sex === 'female' ? '♀' : sex === 'male' ? '♂' : '?');

/** What an animal has eaten of what it was offered. */
export const appetiteWords = ({
  takenEver,
  offeredEver,
  inARow,
}: {
  readonly takenEver: number;
  readonly offeredEver: number;
  readonly inARow: number;
}): string =>
  offeredEver === 0
    ? 'no meal offered yet'
    : `${takenEver} of ${countWords(offeredEver, 'meal', 'meals')} taken, ${inARow} in a row`;
