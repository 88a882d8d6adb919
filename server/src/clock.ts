/*
 * What time it is for the farm: the machine's clock, put ahead by whole days where the server was started to be tried out on a
 * later day. What only measures how long something takes reads the machine's own.
 */

const DAY_MS = 86_400_000;
let aheadMs = 0;

/** Puts the clock ahead, in this process, before anything was asked. */
export function setClockAhead(days: number): void {
  aheadMs = days * DAY_MS;
}

/** Whole days. */
export const daysAhead = (): number => aheadMs / DAY_MS;

/** Milliseconds since 1970, UTC. */
export const nowMs = (): number => Date.now() + aheadMs;

export const now = (): Date => new Date(nowMs());

/** RFC 3339 in UTC, in whole seconds: as signed documents have it. */
export const nowRfc3339 = (): string => `${now().toISOString().slice(0, 19)}Z`;
