import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { History, ShedRecord, ShedStage } from './history.ts';

/** A shed sign older than this without the shed itself is a sign somebody forgot to close. Common practice, no source. */
const CYCLE_DAYS = 28;

export interface InShed {
  readonly stage: Exclude<ShedStage, 'shed'>;
  readonly since: IsoDay;
  readonly days: number;
  readonly record: string;
}

/**
 * Whether the animal is in shed on a day: a sign was seen and the shed itself not yet.
 *
 * @example inShed([{ id: 'r', on: '2026-06-01', stage: 'blue' }], '2026-06-04').days // 3
 */
export function inShed(sheds: readonly ShedRecord[], today: IsoDay): InShed | null {
  const past = sheds.filter((shed) => shed.on <= today);
  const last = past.at(-1);
  if (!last || last.stage === 'shed' || daysBetween(last.on, today) > CYCLE_DAYS) return null;
  const closed = past.findLastIndex((shed) => shed.stage === 'shed');
  const first = past.slice(closed + 1).find((shed) => daysBetween(shed.on, today) <= CYCLE_DAYS)!;
  return { stage: last.stage, since: first.on, days: daysBetween(first.on, today), record: last.id };
}

/** Up to this age an animal that never shed is waiting for its first shed. Common practice, no source. */
const FIRST_SHED_LATEST_DAY = 21;

/** Whether a hatchling is still to shed for the first time. */
export function waitsForFirstShed({ hatchedOn, sheds }: History, day: IsoDay): boolean {
  if (hatchedOn === null || daysBetween(hatchedOn, day) >= FIRST_SHED_LATEST_DAY) return false;
  return !sheds.some((shed) => shed.stage === 'shed');
}

/** Water for a soak, degrees Celsius, and minutes. Common practice, no source. */
export const SOAK = { fromC: 29.4, toC: 31.1, fromMinutes: 10, toMinutes: 15 } as const;
