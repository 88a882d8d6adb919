import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { FactOf } from '../facts.ts';
import type { History } from '../husbandry/history.ts';
import { inShed } from '../husbandry/shed-state.ts';
import type { Reason } from '../husbandry/move-reasons.ts';
import type { SeasonRules } from './rules.ts';

/** The least mass to breed at, and whose it is; `fromYears` is given for the lower floor of older females. */
export interface BreedingFloor {
  readonly of: 'females' | 'older-females' | 'males';
  readonly floorG: number;
  readonly fromYears: number | null;
}

/** The reasons for or against pairing an animal. Masses in grams, shares from 0 to 1, ages in years. */
export interface ReadinessReasons {
  readonly 'never-weighed': { readonly floor: BreedingFloor };
  readonly 'under-floor': { readonly massG: number; readonly floor: BreedingFloor };
  readonly 'over-floor': { readonly massG: number; readonly floor: BreedingFloor };
  readonly 'stale-mass': { readonly days: number; readonly staleDays: number };
  readonly 'too-young': {
    readonly years: number;
    readonly fromYears: number;
    readonly sex: 'female' | 'male';
  };
  readonly 'season-load-reached': { readonly females: number; readonly load: number };
  readonly 'locked-recently': { readonly days: number; readonly restDays: number };
  readonly 'laid-recently': { readonly days: number; readonly restDays: number };
  readonly 'not-recovered': { readonly share: number };
  readonly 'lost-mass': { readonly share: number; readonly limit: number };
  readonly 'in-shed': object;
}
export type ReadinessReason = Reason<FactOf<ReadinessReasons>>;

export interface Readiness {
  readonly ready: boolean;
  /** The reasons for and against; those against come first. */
  readonly reasons: readonly ReadinessReason[];
  /** Days without a meal taken, where she was offered any; null while eating or not known. */
  readonly fastingDays: number | null;
}

/** A male's season so far. */
export interface MaleUse {
  /** Females he was put to this season. */
  readonly females: number;
  readonly locks: number;
  readonly lastLockOn: IsoDay | null;
  /** With a female now. */
  readonly isOut: boolean;
}

/** A weight older than this says little. Common practice, no source. */
const STALE_WEIGHT_DAYS = 60;
/** Without a meal for this long it fasts. Common practice, no source. */
const FASTING_AFTER_DAYS = 28;
/** A female below this share of her best weight of the year has not recovered. Common practice, no source. */
const RECOVERED = 0.85;
const YEAR_DAYS = 365;

const against = (fact: FactOf<ReadinessReasons>, records: readonly string[] = []): ReadinessReason => ({
  ...fact,
  side: 'against',
  records,
});

/** Days since the last meal that was taken, if it is long enough to be called a fast. */
export function fastingDays(history: History, today: IsoDay): number | null {
  const last = history.feedings.findLast((offer) => offer.taken);
  const since = last?.on ?? history.feedings[0]?.on;
  if (since === undefined || history.feedings.at(-1)?.taken) return null;
  const days = daysBetween(since, today);
  return days >= FASTING_AFTER_DAYS ? days : null;
}

/** Years since a hatch day; null where that is not known. */
function yearsOld(hatchedOn: IsoDay | null, today: IsoDay): number | null {
  return hatchedOn === null ? null : daysBetween(hatchedOn, today) / 365.25;
}

/**
 * The weight from which a female of her age may be paired.
 *
 * @param hatchedOn - null where it is not known
 * @example femaleFloor('2020-06-01', SEASON_RULES, '2026-06-01').floorG // 1300
 */
export function femaleFloor(hatchedOn: IsoDay | null, rules: SeasonRules, today: IsoDay): BreedingFloor {
  const years = yearsOld(hatchedOn, today);
  return years !== null && years >= rules.olderFromYears
    ? { of: 'older-females', floorG: rules.olderFemaleFloorG, fromYears: rules.olderFromYears }
    : { of: 'females', floorG: rules.femaleFloorG, fromYears: null };
}

/**
 * Whether a female may be paired, and why not.
 *
 * @example femaleReadiness({ hatchedOn: '2020-06-01', weights: [{ id: 'w', on: '2026-11-01', massG: 1800 }], feedings: [], sheds: [], moves: [] }, null, SEASON_RULES, '2026-11-28').ready // true
 */
export function femaleReadiness(
  history: History,
  lastLaidOn: IsoDay | null,
  rules: SeasonRules,
  today: IsoDay,
): Readiness {
  const years = yearsOld(history.hatchedOn, today);
  const floor = femaleFloor(history.hatchedOn, rules, today);
  const reasons = [
    ...weightReasons(history, floor, today),
    ...ageReasons(years, rules.femaleFromYears, 'female'),
    ...recoveryReasons(history, lastLaidOn, rules, today),
    ...shedReasons(history, today),
  ];
  return summed(reasons, fastingDays(history, today));
}

/**
 * Whether a male may be put to another female, and why he had better rest.
 *
 * @example maleReadiness({ hatchedOn: '2020-06-01', weights: [{ id: 'w', on: '2026-11-01', massG: 800 }], feedings: [], sheds: [], moves: [] }, { females: 9, locks: 0, lastLockOn: null, isOut: false }, SEASON_RULES, '2026-11-28').ready // false
 */
export function maleReadiness(history: History, use: MaleUse, rules: SeasonRules, today: IsoDay): Readiness {
  const years = yearsOld(history.hatchedOn, today);
  const reasons = [
    ...weightReasons(history, { of: 'males', floorG: rules.maleFloorG, fromYears: null }, today),
    ...ageReasons(years, rules.maleFromYears, 'male'),
    ...(use.females >= rules.maleLoad
      ? [
          against({
            code: 'season-load-reached',
            facts: { females: use.females, load: rules.maleLoad },
          }),
        ]
      : []),
    ...(use.lastLockOn !== null && daysBetween(use.lastLockOn, today) < rules.maleRestDays
      ? [
          against({
            code: 'locked-recently',
            facts: { days: daysBetween(use.lastLockOn, today), restDays: rules.maleRestDays },
          }),
        ]
      : []),
    ...lossReasons(history, rules.maleLossPercent, today),
    ...shedReasons(history, today),
  ];
  return summed(reasons, fastingDays(history, today));
}

function summed(reasons: readonly ReadinessReason[], fasting: number | null): Readiness {
  const no = reasons.filter((reason) => reason.side === 'against');
  return {
    ready: no.length === 0,
    reasons: [...no, ...reasons.filter((reason) => reason.side === 'for')],
    fastingDays: fasting,
  };
}

function weightReasons(history: History, floor: BreedingFloor, today: IsoDay): ReadinessReason[] {
  const weight = history.weights.at(-1);
  if (!weight) return [against({ code: 'never-weighed', facts: { floor } })];
  const facts = { massG: weight.massG, floor };
  const reason: ReadinessReason =
    weight.massG < floor.floorG
      ? against({ code: 'under-floor', facts }, [weight.id])
      : { code: 'over-floor', facts, side: 'for', records: [weight.id] };
  const days = daysBetween(weight.on, today);
  if (days <= STALE_WEIGHT_DAYS) return [reason];
  return [
    reason,
    against({ code: 'stale-mass', facts: { days, staleDays: STALE_WEIGHT_DAYS } }, [weight.id]),
  ];
}

function ageReasons(years: number | null, fromYears: number, sex: 'female' | 'male'): ReadinessReason[] {
  if (years === null || years >= fromYears) return [];
  return [against({ code: 'too-young', facts: { years, fromYears, sex } })];
}

function recoveryReasons(
  history: History,
  lastLaidOn: IsoDay | null,
  rules: SeasonRules,
  today: IsoDay,
): ReadinessReason[] {
  if (lastLaidOn === null) return [];
  const days = daysBetween(lastLaidOn, today);
  if (days < rules.femaleRestDays)
    return [against({ code: 'laid-recently', facts: { days, restDays: rules.femaleRestDays } })];
  const mass = massOfYear(history, today);
  if (!mass || mass.share >= RECOVERED) return [];
  return [against({ code: 'not-recovered', facts: { share: mass.share } }, mass.records)];
}

function lossReasons(history: History, lossPercent: number, today: IsoDay): ReadinessReason[] {
  const mass = massOfYear(history, today);
  const limit = lossPercent / 100;
  if (!mass || 1 - mass.share < limit) return [];
  return [against({ code: 'lost-mass', facts: { share: 1 - mass.share, limit } }, mass.records)];
}

/** The last mass as a share of the best of the year; null without a weight in it. */
function massOfYear(history: History, today: IsoDay): { share: number; records: string[] } | null {
  const year = history.weights.filter((weight) => daysBetween(weight.on, today) <= YEAR_DAYS);
  const best = year.toSorted((a, b) => b.massG - a.massG)[0];
  const last = year.at(-1);
  if (!best || !last) return null;
  return { share: last.massG / best.massG, records: [last.id, best.id] };
}

function shedReasons(history: History, today: IsoDay): ReadinessReason[] {
  const shed = inShed(history.sheds, today);
  return shed ? [against({ code: 'in-shed', facts: {} }, [shed.record])] : [];
}
