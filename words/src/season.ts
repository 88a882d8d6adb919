import type {
  ClimateAlarm,
  ClimateAlarms,
  Cutting,
  Expected,
  ReadinessReason,
  ReadinessReasons,
  BreedingFloor,
} from '@karyotome/core';
import { say, type Phrases } from './phrases.ts';
import type { ReasonWords } from './moves.ts';
import type { Reader } from './reader.ts';

function floorRule({ of, floorG, fromYears }: BreedingFloor, reader: Reader): string {
  const mass = reader.mass(floorG);
  if (of === 'older-females')
    return `From ${reader.count(fromYears ?? 0, 'year', 'years')} on, the lower minimum of ${mass} applies.`;
  return `Minimum for ${of}: ${mass}.`;
}

const SEX_PLURAL = { female: 'females', male: 'males' } as const;

const READINESS: Phrases<ReadinessReasons, ReasonWords> = {
  'never-weighed': ({ floor }, reader) => ({ text: 'Never weighed', rule: floorRule(floor, reader) }),
  'under-floor': ({ massG, floor }, reader) => ({
    text: `${reader.mass(Math.round(massG))}, ${reader.mass(Math.round(floor.floorG - massG))} under the minimum`,
    rule: floorRule(floor, reader),
  }),
  'over-floor': ({ massG, floor }, reader) => ({
    text: `${reader.mass(Math.round(massG))}, over the minimum of ${reader.mass(floor.floorG)}`,
    rule: floorRule(floor, reader),
  }),
  'stale-mass': ({ days, staleDays }, reader) => ({
    text: `Weighed ${reader.days(days)} ago`,
    rule: `A weight older than ${reader.days(staleDays)} says little.`,
  }),
  'too-young': ({ years, fromYears, sex }, reader) => ({
    text: `${reader.number(years, 1)} years old`,
    rule: `Breeding ${SEX_PLURAL[sex]} from ${reader.number(fromYears, 1)} years.`,
  }),
  'season-load-reached': ({ females, load }, reader) => ({
    text: `Introduced to ${reader.count(females, 'female', 'females')} this season`,
    rule: `A male serves ${reader.count(load, 'female', 'females')} a season.`,
  }),
  'locked-recently': ({ days, restDays }, reader) => ({
    text: days === 0 ? 'Locked today' : `Locked ${reader.days(days)} ago`,
    rule: `A male rests ${reader.days(restDays)} after a lock.`,
  }),
  'laid-recently': ({ days, restDays }, reader) => ({
    text: `Laid ${reader.days(days)} ago`,
    rule: `A female rests ${reader.days(restDays)} after laying.`,
  }),
  'not-recovered': ({ share }, reader) => ({
    text: `At ${reader.percent(share)} of her best weight of the year`,
    rule: 'After laying she breeds again once she has her weight back.',
  }),
  'lost-mass': ({ share, limit }, reader) => ({
    text: `${reader.percent(share)} under his best weight of the year`,
    rule: `From ${reader.percent(limit)} on a male rests, and a veterinarian is asked if it goes on.`,
  }),
  'in-shed': () => ({ text: 'In shed', rule: 'No handling while it sheds.' }),
};
export const readinessWords = (reason: ReadinessReason, reader: Reader): ReasonWords =>
  say(READINESS, reason, reader);

/** What is expected: "pre-lay shed", "eggs", "first pip". */
export const EXPECTED_WORDS = {
  'pre-lay-shed': 'pre-lay shed',
  eggs: 'eggs',
  'first-pip': 'first pip',
} as const;
const VERBS = { 'pre-lay-shed': 'shed', eggs: 'lay', 'first-pip': 'pip' } as const;

/** Above this share still to come, it is too early to look. */
const TOO_EARLY = 0.995;

/** "Day 36, 1 in 5 lay later than this" */
export function waitWords({ what, day, later }: Expected): string {
  const verb = VERBS[what];
  return later >= TOO_EARLY
    ? `Day ${day}: too early to ${verb}`
    : `Day ${day}, ${oneInWords(later)} ${verb} later than this`;
}

/** A share as a count: "1 in 5", "half", "17 in 20". */
export function oneInWords(p: number): string {
  if (p >= 0.975) return 'nearly all';
  if (p <= 0.005) return 'hardly any';
  if (p > 0.85) return `${Math.round(p * 20)} in 20`;
  if (p > 0.6) return `${Math.round(p * 10)} in 10`;
  if (p > 0.45) return 'half';
  return `1 in ${Math.round(1 / p)}`;
}

export const CUTTING_CAUTION =
  'Fine scissors, flush against the shell, a small window in the top, and no vessel touched: learned from somebody trained. ' +
  'Never pull a hatchling out: it absorbs its yolk for one to three days.';

/** The rule of the keeper by which eggs are cut. */
export function cuttingWords({ protocol, day }: Cutting): string {
  switch (protocol) {
    case 'never':
      return 'Your rule: eggs are never cut.';
    case 'after-first-pip':
      return 'Your rule: once the first egg has pipped, all others are cut.';
    case 'unpipped-at-day':
      return `Your rule: what has not pipped by day ${day} is cut.`;
  }
}

const ALARMS: Phrases<ClimateAlarms> = {
  'too-warm': ({ celsius, limitC }, reader) =>
    `${reader.temperature(celsius)}, over ${reader.temperature(limitC)}`,
  'too-cold': ({ celsius, limitC }, reader) =>
    `${reader.temperature(celsius)}, under ${reader.temperature(limitC)}`,
  'too-dry': ({ humidity, limit }, reader) =>
    `Humidity ${reader.percent(humidity / 100)}, under ${reader.percent(limit / 100)}`,
  silent: ({ hours }, reader) => {
    if (hours === null) return 'No reading yet';
    return hours < 48
      ? `No reading for ${reader.count(Math.round(hours), 'hour', 'hours')}`
      : `No reading for ${reader.days(Math.round(hours / 24))}`;
  },
};
export const alarmWords = (alarm: ClimateAlarm, reader: Reader): string => say(ALARMS, alarm, reader);
