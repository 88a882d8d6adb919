import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { ShedRecord, ShedStage } from './history.ts';

/** A shed sign older than this without the shed itself is a sign somebody forgot to close. Common practice, no source. */
const CYCLE_DAYS = 28;

export interface InShed {
  readonly stage: Exclude<ShedStage, 'shed'>;
  readonly since: IsoDay;
  readonly days: number;
  readonly record: string;
}

/** Whether the animal is in shed on a day: a sign was seen and the shed itself not yet. */
export function inShed(sheds: readonly ShedRecord[], today: IsoDay): InShed | null {
  const past = sheds.filter((shed) => shed.on <= today);
  const last = past.at(-1);
  if (!last || last.stage === 'shed' || daysBetween(last.on, today) > CYCLE_DAYS) return null;
  const closed = past.findLastIndex((shed) => shed.stage === 'shed');
  const first = past.slice(closed + 1).find((shed) => daysBetween(shed.on, today) <= CYCLE_DAYS)!;
  return { stage: last.stage, since: first.on, days: daysBetween(first.on, today), record: last.id };
}

/** What to do after a bad shed, and when to ask somebody trained. Common practice, no source. */
export const BAD_SHED_ADVICE =
  'Soak 10 to 15 minutes in water of 29.4 to 31.1 °C, let it crawl through the hands, never peel, repeat the next day. Eye caps that stay go to a veterinarian.';
