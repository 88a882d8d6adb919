/** A calendar day, `YYYY-MM-DD`. Days have no time zone, so arithmetic on them never slips over midnight. */
export type IsoDay = string;

const MS_PER_DAY = 86_400_000;

/**
 * True for a day that exists: `2026-02-30` does not.
 *
 * @example isIsoDay('2026-02-30') // false
 */
export function isIsoDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const ms = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(ms) && new Date(ms).toISOString().slice(0, 10) === text;
}

/**
 * Whole days from one day to another; negative when `to` lies before `from`.
 *
 * @example daysBetween('2026-02-27', '2026-03-01') // 2
 */
export function daysBetween(from: IsoDay, to: IsoDay): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / MS_PER_DAY);
}

/**
 * The day that lies `days` whole days after `day` (before it, when negative).
 *
 * @example addDays('2026-02-27', 2) // "2026-03-01"
 */
export function addDays(day: IsoDay, days: number): IsoDay {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * MS_PER_DAY).toISOString().slice(0, 10);
}

/**
 * The day that a moment falls on, on the calendar of the machine's time zone.
 *
 * @example localDay(new Date(2026, 10, 28, 23, 59)) // "2026-11-28"
 */
export function localDay(moment: Date): IsoDay {
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
}
