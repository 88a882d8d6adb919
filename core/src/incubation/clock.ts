import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import type { Expected } from '../breeding/forecast.ts';
import type { SeasonRules } from '../breeding/rules.ts';
import type { Cutting } from '../husbandry/task.ts';
import { chanceAbove, givenAtLeast, quantile, type Learned } from '../numeric/whole-odds.ts';
import { rateAt, referenceDays, REFERENCE_C, type DailyMeans } from './thermal-time.ts';

/** Days on which eggs are looked at, then weekly. Common practice, no source. */
export const EGG_CHECK_DAYS = [15, 23, 33, 40, 47, 54] as const;

/** One clutch in the incubator, as the clock needs it. */
export interface Incubation {
  readonly laidOn: IsoDay;
  /** What the incubator is set to; the reference where nobody said. */
  readonly setC: number | null;
  readonly means: DailyMeans;
  readonly firstPipOn: IsoDay | null;
  /** Days on which the eggs were looked at. */
  readonly checkedOn: readonly IsoDay[];
}

export interface Milestone {
  readonly what: 'egg-check' | 'first-pip';
  readonly day: number;
  readonly on: IsoDay;
  readonly done: boolean;
}

export interface IncubationClock {
  readonly day: number;
  /** When the first pip is expected; null once it was seen. */
  readonly pip: Expected | null;
  /** When the first young are expected to leave the egg. */
  readonly out: { readonly from: IsoDay; readonly to: IsoDay };
  readonly milestones: readonly Milestone[];
  /** When eggs are cut by the keeper’s own protocol; null where it is never, or not known yet. */
  readonly cutOn: IsoDay | null;
  readonly cutting: Cutting;
}

/** A check counts for a milestone from two days before to three days after. */
const CHECK_EARLY_DAYS = 2;
export const CHECK_LATE_DAYS = 3;

/** From the slit to the first young out of the egg, days: it absorbs its yolk. Common practice, no source. */
export const YOLK_DAYS = { from: 1, to: 3 } as const;

/**
 * The day count of a clutch, what is behind it and what is coming.
 *
 * @example incubationClock({ laidOn: '2026-05-01', setC: 31.4, means: new Map(), firstPipOn: null, checkedOn: [] }, learnWaits([]).eggsToPip, SEASON_RULES, '2026-05-11').day // 10
 */
export function incubationClock(
  clutch: Incubation,
  wait: Learned,
  rules: Pick<SeasonRules, 'cutting' | 'cutDay'>,
  today: IsoDay,
): IncubationClock {
  const day = daysBetween(clutch.laidOn, today);
  const pip = clutch.firstPipOn === null ? expectPip(clutch, wait, today) : null;
  const checks = EGG_CHECK_DAYS.map((checkDay): Milestone => {
    const on = addDays(clutch.laidOn, checkDay);
    const done = clutch.checkedOn.some((seen) => {
      const late = daysBetween(on, seen);
      return late >= -CHECK_EARLY_DAYS && late <= CHECK_LATE_DAYS;
    });
    return { what: 'egg-check', day: checkDay, on, done };
  });
  const pipOn = clutch.firstPipOn ?? pip!.middle;
  return {
    day,
    pip,
    out: {
      from: addDays(clutch.firstPipOn ?? pip!.from, YOLK_DAYS.from),
      to: addDays(clutch.firstPipOn ?? pip!.to, YOLK_DAYS.to),
    },
    milestones: [
      ...checks,
      {
        what: 'first-pip',
        day: daysBetween(clutch.laidOn, pipOn),
        on: pipOn,
        done: clutch.firstPipOn !== null,
      },
    ],
    cutOn: cutDay(clutch, rules),
    cutting: { protocol: rules.cutting, day: rules.cutDay },
  };
}

function expectPip({ laidOn, setC, means }: Incubation, wait: Learned, today: IsoDay): Expected {
  const day = daysBetween(laidOn, today);
  const set = setC ?? REFERENCE_C;
  const gone = referenceDays(day, means, set);
  const rest = givenAtLeast(wait.odds, Math.floor(gone)) ?? { first: Math.floor(gone), odds: [1] };
  const on = (q: number): IsoDay =>
    addDays(today, Math.max(0, Math.round((quantile(rest, q) - gone) / Math.max(0.1, rateAt(set)))));
  const later = chanceAbove(wait.odds, Math.floor(gone));
  return {
    what: 'first-pip',
    day,
    later,
    from: on(0.1),
    middle: on(0.5),
    to: on(0.9),
    clutches: wait.observations,
  };
}

function cutDay(
  { laidOn, firstPipOn }: Incubation,
  rules: Pick<SeasonRules, 'cutting' | 'cutDay'>,
): IsoDay | null {
  switch (rules.cutting) {
    case 'never':
      return null;
    case 'after-first-pip':
      return firstPipOn;
    case 'unpipped-at-day':
      return addDays(laidOn, rules.cutDay);
  }
}
