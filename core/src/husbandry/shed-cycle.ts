import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import { lastCare, type History, type ShedRecord, type ShedStage } from './history.ts';
import { inShed, type InShed } from './shed-state.ts';

/** Days from the first sight of a stage to the shed: middle and standard deviation. Common practice, no source. */
const USUAL: Readonly<Record<Exclude<ShedStage, 'shed'>, { days: number; sd: number }>> = {
  dull: { days: 10, sd: 2.5 },
  blue: { days: 8, sd: 2 },
  clear: { days: 5, sd: 1.2 },
};
/** A hatchling sheds about five days after it turned blue. */
const HATCHLING: typeof USUAL = {
  dull: { days: 7, sd: 2 },
  blue: { days: 5, sd: 1.5 },
  clear: { days: 3, sd: 1 },
};
const HATCHLING_DAYS = 120;
/** The usual waits weigh as much as so many of the animal's own. */
const USUAL_COUNT = 3;

export interface ShedCycle extends InShed {
  /** Eight in ten shed in this span. */
  readonly expected: { readonly from: IsoDay; readonly mid: IsoDay; readonly to: IsoDay };
  /** Of its own earlier sheds, how many this rests on. */
  readonly ownCycles: number;
  /** Past the span: look again. */
  readonly late: boolean;
}

/**
 * The shed an animal is in: its stage, and the day the skin is expected to come off, by the stage and its own history.
 *
 * @example shedCycle({ hatchedOn: null, weights: [], feedings: [], sheds: [], moves: [] }, '2026-11-28') // null
 */
export function shedCycle(history: History, day: IsoDay): ShedCycle | null {
  const now = inShed(history.sheds, day);
  if (!now) return null;
  const seen = stageSeenOn(history.sheds, now, day);
  const young = history.hatchedOn !== null && daysBetween(history.hatchedOn, day) < HATCHLING_DAYS;
  const usual = (young ? HATCHLING : USUAL)[now.stage];
  const own = ownWaits(history.sheds, now.stage, day);
  const mean = (usual.days * USUAL_COUNT + own.reduce((a, b) => a + b, 0)) / (USUAL_COUNT + own.length);
  const squares = own.reduce((sum, wait) => sum + (wait - mean) ** 2, 0);
  const sd = Math.sqrt((usual.sd ** 2 * USUAL_COUNT + squares) / (USUAL_COUNT + own.length));
  const at = (z: number): IsoDay => addDays(seen, Math.max(0, Math.round(mean + z * sd)));
  const expected = { from: at(-1.2816), mid: at(0), to: at(1.2816) };
  return { ...now, expected, ownCycles: own.length, late: day > expected.to };
}

function stageSeenOn(sheds: readonly ShedRecord[], now: InShed, day: IsoDay): IsoDay {
  return sheds.find(({ stage, on }) => stage === now.stage && on >= now.since && on <= day)!.on;
}

/** Days from the first sight of a stage to the shed, in each cycle that was seen through. */
function ownWaits(sheds: readonly ShedRecord[], stage: ShedStage, day: IsoDay): number[] {
  const waits: number[] = [];
  let seen: IsoDay | null = null;
  for (const shed of sheds) {
    if (shed.on > day) break;
    if (shed.stage === stage) seen ??= shed.on;
    if (shed.stage === 'shed') {
      if (seen !== null && daysBetween(seen, shed.on) <= 28) waits.push(daysBetween(seen, shed.on));
      seen = null;
    }
  }
  return waits;
}

/** After so many soaks on as many days it is a veterinarian's. */
const SOAKS_BEFORE_VET = 3;
const BAD_SHED_DAYS = 14;

export interface SoakPlan {
  /** The bad shed, and its record. */
  readonly since: IsoDay;
  readonly record: string;
  readonly what: 'pieces' | 'caps' | 'both';
  readonly soaks: readonly IsoDay[];
  /** Today's is still to be done. */
  readonly dueToday: boolean;
  /** It did not come off: a veterinarian's. */
  readonly veterinarian: boolean;
}

/**
 * What follows a shed that came off in pieces or left eye caps: a soak a day, until it is off or a veterinarian is asked.
 *
 * @example soakPlan({ hatchedOn: null, weights: [], feedings: [], sheds: [], moves: [] }, '2026-11-28') // null
 */
export function soakPlan(history: History, day: IsoDay): SoakPlan | null {
  const last = history.sheds.findLast(({ stage, on }) => stage === 'shed' && on <= day);
  if (!last || daysBetween(last.on, day) > BAD_SHED_DAYS) return null;
  const pieces = last.complete === false;
  const caps = last.eyeCaps === false;
  if (!pieces && !caps) return null;
  const checked = lastCare(history, 'caps-checked', day);
  if (checked && checked.on >= last.on) return null;
  const soaks = [
    ...new Set(
      (history.care ?? [])
        .filter(({ act, on }) => act === 'soaked' && on >= last.on && on <= day)
        .map(({ on }) => on),
    ),
  ];
  return {
    since: last.on,
    record: last.id,
    what: pieces && caps ? 'both' : pieces ? 'pieces' : 'caps',
    soaks,
    dueToday: !soaks.includes(day),
    veterinarian: soaks.length >= SOAKS_BEFORE_VET,
  };
}
