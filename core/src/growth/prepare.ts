import { daysBetween, type IsoDay } from '../calendar/days.ts';
import { preyMass } from '../feeding/prey.ts';
import { MEAL_IN_DAYS } from '../husbandry/appetite.ts';
import type { FeedingRecord, WeightRecord } from '../husbandry/history.ts';
import { ageAt, curveAt, type CurveSex, type GrowthCurve } from './curve.ts';

/** What growth is read from: weights, meals and layings of one animal, in date order. */
export interface GrowthSubject {
  readonly id: string;
  readonly sex: CurveSex;
  readonly hatchedOn: IsoDay | null;
  readonly clutchId: string | null;
  readonly weights: readonly WeightRecord[];
  readonly feedings: readonly FeedingRecord[];
  /** Days on which it laid. */
  readonly laidOn: readonly IsoDay[];
}

/** Without a meal for so long nothing grows, and this share is lost in a day. Common practice, no source. */
const FAST_AFTER_DAYS = 21;
const FAST_LOSS_A_DAY = 0.0006;
/** A laying takes about so much of her weight, give or take. Common practice, no source. */
const LAYING = { share: 0.28, sd: 0.08 };

const EPOCH: IsoDay = '1970-01-01';
/** Days since 1970: calendars are slow where a day is compared a million times. */
export const dayNumber = (day: IsoDay): number => daysBetween(EPOCH, day);

/** A weight with all that its step needs and no variance changes: reckoned once, walked many times. */
export interface Stage {
  readonly weight: WeightRecord;
  readonly day: number;
  readonly span: number;
  readonly interruption: Interruption;
  /** Logarithm of mass less the curve and what a meal in the animal is expected to weigh. */
  readonly y: number;
  readonly mealVariance: number;
}
/** What is known to have moved the level besides growth, and how surely. */
export interface Interruption {
  readonly shift: number;
  readonly variance: number;
}

/** An animal made ready: days as numbers, spans of hunger, its stages. */
export interface Prepared {
  readonly subject: GrowthSubject;
  readonly curve: GrowthCurve;
  readonly born: number;
  readonly stages: readonly Stage[];
  readonly hungry: readonly (readonly [from: number, to: number])[];
  readonly laid: readonly number[];
}

/** @returns null where there is neither a hatch day nor a weight to begin with */
export function prepare(subject: GrowthSubject, curve: GrowthCurve): Prepared | null {
  const born = birthday(subject, curve);
  if (born === null) return null;
  const hungry = hungrySpans(subject);
  const laid = subject.laidOn.map(dayNumber);
  const days = subject.weights.map(({ on }) => dayNumber(on));
  const meals = subject.feedings
    .filter(({ taken }) => taken)
    .map((meal) => ({ day: dayNumber(meal.on), meal }));
  const bare = { subject, curve, born, hungry, laid };
  let next = 0;
  const stages = subject.weights.map((weight, i): Stage => {
    const day = days[i]!;
    while (next < meals.length && meals[next]!.day <= day) next += 1;
    const before = days[i - 1] ?? day;
    const meal = mealIn(weight, day, meals[next - 1]);
    return {
      weight,
      day,
      span: day - before,
      interruption: interruptions(bare, before, day),
      y: Math.log(weight.massG) - curveAt(curve, day - born) - meal.shift,
      mealVariance: meal.variance,
    };
  });
  return { ...bare, stages };
}

/** The day its age counts from: of an animal without a hatch day, by the age at which the curve has its first weight. */
function birthday(subject: GrowthSubject, curve: GrowthCurve): number | null {
  if (subject.hatchedOn) return dayNumber(subject.hatchedOn);
  const first = subject.weights[0];
  return first ? dayNumber(first.on) - ageAt(curve, first.massG) : null;
}

/** Spans in which the last meal lay over three weeks back. None where no meal was ever recorded. */
function hungrySpans(subject: GrowthSubject): [number, number][] {
  const taken = subject.feedings.filter((offer) => offer.taken).map(({ on }) => dayNumber(on));
  if (taken.length === 0) return [];
  // After the last record nobody knows: only offers that were refused say that it goes hungry.
  const end = dayNumber(subject.feedings.at(-1)!.on);
  return taken.flatMap((meal, i): [number, number][] => {
    const from = meal + FAST_AFTER_DAYS;
    const to = taken[i + 1] ?? end;
    return from < to ? [[from, to]] : [];
  });
}

/** Growth that did not happen because nothing was eaten, and what a laying took, between two days. */
export function interruptions(
  { hungry, laid, curve, born }: Omit<Prepared, 'stages'>,
  from: number,
  to: number,
): Interruption {
  let shift = 0;
  let variance = 0;
  for (const day of laid) {
    if (day <= from || day > to) continue;
    shift += Math.log(1 - LAYING.share);
    variance += (LAYING.sd / (1 - LAYING.share)) ** 2;
  }
  let days = 0;
  for (const [start, end] of hungry) {
    if (start >= to) break;
    days += Math.max(0, Math.min(end, to) - Math.max(start, from));
  }
  if (days > 0) {
    const growth = curveAt(curve, to - born) - curveAt(curve, from - born);
    const share = days / (to - from);
    shift += -growth * share - FAST_LOSS_A_DAY * days;
    variance += (0.5 * FAST_LOSS_A_DAY * days) ** 2 + (0.3 * growth * share) ** 2;
  }
  return { shift, variance };
}

/** What a weight within days of a meal holds of it: expected share of the logarithm, and its variance. */
function mealIn(
  weight: WeightRecord,
  day: number,
  last: { readonly day: number; readonly meal: FeedingRecord } | undefined,
): Interruption {
  if (!last || day - last.day >= MEAL_IN_DAYS) return { shift: 0, variance: 0 };
  const grams = preyMass(last.meal.species ?? '', last.meal.size ?? '') ?? weight.massG * 0.08;
  const share = Math.min(0.3, grams / weight.massG);
  return { shift: 0.5 * share, variance: (0.5 * share) ** 2 };
}
