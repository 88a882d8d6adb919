import { daysBetween } from '@karyotome/core';
import { farmClock, farmDayOf, farmToday } from './farm-day.ts';

export { farmToday } from './farm-day.ts';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const G_PER_OZ = 28.349523125;

/** "4 Mar 2026" */
export function dayWords(day: string): string {
  const [year, month, date] = day.split('-').map(Number);
  return `${date} ${MONTHS[month! - 1]} ${year}`;
}

/** "4 Mar", where the year goes without saying. */
export const shortDay = (day: string): string => dayWords(day).replace(/ \d+$/, '');

/** "25 Nov to 6 Dec", with the year where it changes between them; one day as "about 25 Nov". */
export function spanOfDays(from: string, to: string): string {
  if (from === to) return `about ${shortDay(from)}`;
  return from.slice(0, 4) === to.slice(0, 4)
    ? `${shortDay(from)} to ${shortDay(to)}`
    : `${shortDay(from)} to ${dayWords(to)}`;
}

/** The farm's day of a moment: "4 Mar 2026". @param moment - RFC 3339 */
export const momentDay = (moment: string): string => dayWords(farmDayOf(moment));

/** "4 Mar 2026, 21:30", by the farm's clocks. @param moment - RFC 3339 */
export const momentWords = (moment: string): string => `${momentDay(moment)}, ${farmClock(moment).slice(11)}`;

/** "since today", "since yesterday", "for 12 days" */
export function sinceWords(day: string, today = farmToday()): string {
  const days = daysBetween(day, today);
  return days < 2 ? `since ${agoWords(day, today)}` : `for ${days} days`;
}

/** "today", "yesterday", "in 3 days", "12 days ago", then the date. */
export function agoWords(day: string, today = farmToday()): string {
  const days = daysBetween(day, today);
  if (days === 0) return 'today';
  if (days === 1) return 'yesterday';
  if (days === -1) return 'tomorrow';
  if (days < 0) return `in ${-days} days`;
  return days < 60 ? `${days} days ago` : dayWords(day);
}

/** "5 weeks", "14 months", "3 years" */
export function ageWords(hatchedOn: string, today = farmToday()): string {
  const days = daysBetween(hatchedOn, today);
  if (days < 21) return days === 1 ? '1 day' : `${days} days`;
  if (days < 120) return `${Math.round(days / 7)} weeks`;
  if (days < 730) return `${Math.round(days / 30.44)} months`;
  return `${(days / 365.25).toFixed(1)} years`;
}

/** Grams or ounces, with the unit. */
export function massWords(massG: number, unit: 'g' | 'oz' = 'g'): string {
  if (unit === 'oz') return `${(massG / G_PER_OZ).toFixed(2)} oz`;
  return `${massG < 100 && !Number.isInteger(massG) ? massG.toFixed(1) : Math.round(massG)} g`;
}

/** Degrees Celsius or Fahrenheit, with the unit. */
export function temperatureWords(celsius: number, unit: 'C' | 'F' = 'C'): string {
  return unit === 'F' ? `${((celsius * 9) / 5 + 32).toFixed(1)} °F` : `${celsius.toFixed(1)} °C`;
}

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
