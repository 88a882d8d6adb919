import { clockIn, dayIn, offsetAt, type TimeZone } from '@karyotome/core';

/*
 * All days are the farm's: a phone that is carried into another time zone goes on with the farm's calendar. Which zone that
 * is comes with the session; until then the device's own stands in.
 */

export const deviceZone = (): TimeZone => new Intl.DateTimeFormat().resolvedOptions().timeZone;

let zone: TimeZone = deviceZone();

/** From now on days are those of this zone. */
export function setFarmZone(name: TimeZone): void {
  zone = name;
}

let daysAhead = 0;

/** The server's clock is so many days ahead, where it is tried out on a later day. */
export function setDaysAhead(days: number): void {
  daysAhead = days;
}

/** Now, by the server's clock. Milliseconds since 1970, UTC. */
export const farmNowMs = (): number => Date.now() + daysAhead * 86_400_000;

/** Today, as the farm's calendar has it. */
export function farmToday(): string {
  return dayIn(zone, farmNowMs());
}

/** The farm's day of a moment. @param moment - RFC 3339 */
export function farmDayOf(moment: string): string {
  return dayIn(zone, Date.parse(moment));
}

/** `2026-05-14 21:30`, as the farm's clocks show a moment. */
export function farmClock(moment: string): string {
  return clockIn(zone, Date.parse(moment));
}

/** Whether this device's clock shows another time than the farm's. */
export function clocksDiffer(): boolean {
  const now = Date.now();
  return offsetAt(deviceZone(), now) !== offsetAt(zone, now);
}
