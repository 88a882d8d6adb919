import { daysBetween, type IsoDay } from '../calendar/days.ts';
import type { History } from '../husbandry/history.ts';
import { inShed } from '../husbandry/shed-state.ts';
import type { Reason } from '../husbandry/move-advice.ts';
import type { SeasonRules } from './rules.ts';

export interface Readiness {
  readonly ready: boolean;
  /** The reasons for and against; those against come first. */
  readonly reasons: readonly Reason[];
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

const against = (text: string, rule: string, records: readonly string[] = []): Reason => ({
  side: 'against',
  text,
  rule,
  records,
});
const speaksFor = (text: string, rule: string, records: readonly string[] = []): Reason => ({
  side: 'for',
  text,
  rule,
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

/** Whether a female may be paired, and why not. */
export function femaleReadiness(
  history: History,
  lastLaidOn: IsoDay | null,
  rules: SeasonRules,
  today: IsoDay,
): Readiness {
  const years = history.hatchedOn ? daysBetween(history.hatchedOn, today) / 365.25 : null;
  const isOlder = years !== null && years >= rules.olderFromYears;
  const floorG = isOlder ? rules.olderFemaleFloorG : rules.femaleFloorG;
  const floorRule = isOlder
    ? `From ${rules.olderFromYears} years on the lower floor of ${rules.olderFemaleFloorG} g holds.`
    : `The floor for females is ${rules.femaleFloorG} g.`;
  const reasons = [
    ...weightReasons(history, floorG, floorRule, today),
    ...ageReasons(years, rules.femaleFromYears, 'females'),
    ...recoveryReasons(history, lastLaidOn, rules, today),
    ...shedReasons(history, today),
  ];
  return summed(reasons, fastingDays(history, today));
}

/** Whether a male may be put to another female, and why he had better rest. */
export function maleReadiness(history: History, use: MaleUse, rules: SeasonRules, today: IsoDay): Readiness {
  const years = history.hatchedOn ? daysBetween(history.hatchedOn, today) / 365.25 : null;
  const reasons = [
    ...weightReasons(history, rules.maleFloorG, `The floor for males is ${rules.maleFloorG} g.`, today),
    ...ageReasons(years, rules.maleFromYears, 'males'),
    ...(use.females >= rules.maleLoad
      ? [
          against(
            `Put to ${use.females} females this season`,
            `A male serves ${rules.maleLoad} females a season.`,
          ),
        ]
      : []),
    ...(use.lastLockOn !== null && daysBetween(use.lastLockOn, today) < rules.maleRestDays
      ? [
          against(
            daysBetween(use.lastLockOn, today) === 0
              ? 'Locked today'
              : `Locked ${daysBetween(use.lastLockOn, today)} days ago`,
            `A male rests ${rules.maleRestDays} days after a lock.`,
          ),
        ]
      : []),
    ...lossReasons(history, rules.maleLossPercent, today),
    ...shedReasons(history, today),
  ];
  return summed(reasons, fastingDays(history, today));
}

function summed(reasons: readonly Reason[], fasting: number | null): Readiness {
  const no = reasons.filter((reason) => reason.side === 'against');
  return {
    ready: no.length === 0,
    reasons: [...no, ...reasons.filter((reason) => reason.side === 'for')],
    fastingDays: fasting,
  };
}

function weightReasons(history: History, floorG: number, rule: string, today: IsoDay): Reason[] {
  const weight = history.weights.at(-1);
  if (!weight) return [against('Never weighed', rule)];
  const grams = Math.round(weight.massG);
  const reason =
    weight.massG < floorG
      ? against(`${grams} g, ${Math.round(floorG - weight.massG)} g under the floor`, rule, [weight.id])
      : speaksFor(`${grams} g, over the floor of ${floorG} g`, rule, [weight.id]);
  const age = daysBetween(weight.on, today);
  if (age <= STALE_WEIGHT_DAYS) return [reason];
  return [
    reason,
    against(`Weighed ${age} days ago`, `A weight older than ${STALE_WEIGHT_DAYS} days says little.`, [
      weight.id,
    ]),
  ];
}

function ageReasons(years: number | null, fromYears: number, whose: string): Reason[] {
  if (years === null || years >= fromYears) return [];
  return [against(`${years.toFixed(1)} years old`, `Breeding ${whose} from ${fromYears} years.`)];
}

function recoveryReasons(
  history: History,
  lastLaidOn: IsoDay | null,
  rules: SeasonRules,
  today: IsoDay,
): Reason[] {
  if (lastLaidOn === null) return [];
  const days = daysBetween(lastLaidOn, today);
  if (days < rules.femaleRestDays)
    return [against(`Laid ${days} days ago`, `A female rests ${rules.femaleRestDays} days after laying.`)];
  const year = history.weights.filter((weight) => daysBetween(weight.on, today) <= YEAR_DAYS);
  const best = year.toSorted((a, b) => b.massG - a.massG)[0];
  const now = year.at(-1);
  if (!best || !now || now.massG >= best.massG * RECOVERED) return [];
  const share = Math.round((now.massG / best.massG) * 100);
  return [
    against(
      `At ${share}% of her best weight of the year`,
      'After laying she breeds again once she has her weight back.',
      [now.id, best.id],
    ),
  ];
}

function lossReasons(history: History, lossPercent: number, today: IsoDay): Reason[] {
  const year = history.weights.filter((weight) => daysBetween(weight.on, today) <= YEAR_DAYS);
  const best = year.toSorted((a, b) => b.massG - a.massG)[0];
  const now = year.at(-1);
  if (!best || !now) return [];
  const loss = (1 - now.massG / best.massG) * 100;
  if (loss < lossPercent) return [];
  return [
    against(
      `${Math.round(loss)}% under his best weight of the year`,
      `From ${lossPercent}% a male rests, and a veterinarian is asked if it goes on.`,
      [now.id, best.id],
    ),
  ];
}

function shedReasons(history: History, today: IsoDay): Reason[] {
  const shed = inShed(history.sheds, today);
  return shed ? [against('In shed', 'No handling while it sheds.', [shed.record])] : [];
}
