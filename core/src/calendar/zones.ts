import { addDays, type IsoDay } from './days.ts';

/*
 * Time zones of the IANA database, as the platform's Intl knows them. A zone is named as `Europe/Berlin`; a moment is
 * milliseconds since 1970-01-01T00:00:00Z.
 */

/** An IANA name of a zone, such as `Pacific/Honolulu`, or `UTC`. */
export type TimeZone = string;

const formats = new Map<TimeZone, Intl.DateTimeFormat>();

/** @throws RangeError where the platform knows no such zone */
function formatOf(zone: TimeZone): Intl.DateTimeFormat {
  const known = formats.get(zone);
  if (known) return known;
  const format = new Intl.DateTimeFormat('en-US', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  });
  formats.set(zone, format);
  return format;
}

const NAME = /^[A-Za-z][A-Za-z0-9_+-]*(\/[A-Za-z0-9_+-]+){0,2}$/;

/**
 * True for a named zone that the platform knows; offsets such as `+02:00` are no zones: they know no summer.
 *
 * @example isTimeZone('Mars/Base') // false
 */
export function isTimeZone(name: string): boolean {
  if (name.length > 64 || !NAME.test(name)) return false;
  try {
    formatOf(name);
    return true;
  } catch {
    return false;
  }
}

/** What the clocks of a zone show at a moment, as milliseconds of a clock that shows UTC. */
function wallClock(zone: TimeZone, ms: number): number {
  const parts: Record<string, number> = {};
  for (const { type, value } of formatOf(zone).formatToParts(ms)) parts[type] = Number(value);
  return Date.UTC(
    parts['year']!,
    parts['month']! - 1,
    parts['day'],
    parts['hour'],
    parts['minute'],
    parts['second'],
  );
}

/**
 * How far a zone's clocks are ahead of UTC at a moment, in milliseconds.
 *
 * @example offsetAt('Asia/Kolkata', 0) // 19800000
 */
export function offsetAt(zone: TimeZone, ms: number): number {
  // Intl gives whole seconds.
  const second = Math.floor(ms / 1000) * 1000;
  return wallClock(zone, second) - second;
}

/**
 * The calendar day of a zone at a moment.
 *
 * @example dayIn('Pacific/Auckland', Date.UTC(2026, 0, 1, 12)) // "2026-01-02"
 */
export function dayIn(zone: TimeZone, ms: number): IsoDay {
  return new Date(wallClock(zone, ms)).toISOString().slice(0, 10);
}

/**
 * `2026-05-14 21:30`, as the clocks of a zone show a moment.
 *
 * @example clockIn('Europe/Berlin', Date.UTC(2026, 0, 1, 12)) // "2026-01-01 13:00"
 */
export function clockIn(zone: TimeZone, ms: number): string {
  return new Date(wallClock(zone, ms)).toISOString().slice(0, 16).replace('T', ' ');
}

/**
 * The moments at which a zone's clocks show a time, earliest first: one as a rule, two in the hour that comes twice when
 * the clocks go back, none in the hour that is left out when they go forward.
 *
 * @param wall - what the clocks show, as milliseconds of a clock that shows UTC
 * @example momentsOf('Europe/Berlin', Date.UTC(2026, 2, 29, 2, 30)).length // 0
 */
export function momentsOf(zone: TimeZone, wall: number): number[] {
  const day = 86_400_000;
  const offsets = new Set([offsetAt(zone, wall - day), offsetAt(zone, wall), offsetAt(zone, wall + day)]);
  return [...offsets]
    .map((offset) => wall - offset)
    .filter((moment) => offsetAt(zone, moment) === wall - moment)
    .toSorted((a, b) => a - b);
}

/**
 * The moment at which a day of a zone begins; where midnight is left out, the first one that is shown.
 *
 * @example startOfDay('Europe/Berlin', '2026-01-01') // 1767222000000
 */
export function startOfDay(zone: TimeZone, day: IsoDay): number {
  const midnight = Date.parse(`${day}T00:00:00Z`);
  const [first] = momentsOf(zone, midnight);
  if (first !== undefined) return first;
  // Midnight falls into the hour left out: the clocks' jump is when the day begins.
  return midnight - offsetAt(zone, midnight - 86_400_000);
}

/**
 * The latest day that it is anywhere on earth (UTC+14): no day of any farm lies beyond it.
 *
 * @example latestDayOnEarth(Date.UTC(2026, 0, 1, 12)) // "2026-01-02"
 */
export function latestDayOnEarth(ms: number): IsoDay {
  return new Date(ms + 14 * 3_600_000).toISOString().slice(0, 10);
}

/**
 * How long a day of a zone is, in hours: 23 or 25 when its clocks change.
 *
 * @example hoursOf('Europe/Berlin', '2026-03-29') // 23
 */
export function hoursOf(zone: TimeZone, day: IsoDay): number {
  return (startOfDay(zone, addDays(day, 1)) - startOfDay(zone, day)) / 3_600_000;
}

/**
 * The hour of a moment on a zone's clock, 0 to 23.
 *
 * @example hourIn('Europe/Berlin', Date.UTC(2026, 0, 1, 23, 30)) // 0
 */
export const hourIn = (zone: TimeZone, ms: number): number => new Date(wallClock(zone, ms)).getUTCHours();
