import { daysBetween } from '@karyotome/core';
import { farmClock, farmDayOf, farmToday } from './farm-day.ts';
import { reader } from './reader.ts';

export { farmToday } from './farm-day.ts';

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
export function ageWords(hatchedOn: string, today = farmToday()): string {
  const days = daysBetween(hatchedOn, today);
  if (days < 21) return reader().days(days);
  if (days < 120) return `${Math.round(days / 7)} weeks`;
  if (days < 730) return `${Math.round(days / 30.44)} months`;
  return `${(days / 365.25).toFixed(1)} years`;
}

/** Grams or ounces, with the unit. @param massG - grams */
export const massWords = (massG: number): string => reader().mass(massG);

/** Degrees Celsius or Fahrenheit, with the unit. @param celsius - degrees Celsius */
export const temperatureWords = (celsius: number): string => reader().temperature(celsius);

/** A probability for people: "25%", "0.4%", "under 0.1%", "over 99.9%" short of certain. */
export function oddsWords(p: number): string {
  if (p >= 1 - 1e-9) return '100%';
  if (p <= 0) return '0%';
  const percent = p * 100;
  if (percent > 99.9) return 'over 99.9%';
  if (percent < 0.1) return 'under 0.1%';
  return `${percent >= 10 ? +percent.toFixed(1) : +percent.toFixed(2)}%`;
}

const STATUS_WORDS: Readonly<Record<string, string>> = {
  undecided: 'Undecided',
  'held-back': 'Held back',
  'for-sale': 'For sale',
  reserved: 'Reserved',
  sold: 'Sold',
  breeder: 'Breeder',
  died: 'Died',
  mistaken: 'Entered by mistake',
};
export const statusWords = (status: string): string => STATUS_WORDS[status] ?? status;
export const sexSign = (sex: string): string => (sex === 'female' ? '♀' : sex === 'male' ? '♂' : '?');
export const sexWords = (sex: string): string => (sex === 'unknown' ? 'not sexed' : sex);
