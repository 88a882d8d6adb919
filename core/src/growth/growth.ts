import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import type { FeedingRecord, WeightRecord } from '../husbandry/history.ts';
import { preyMass } from '../feeding/prey.ts';
import { coordinateDescent } from '../numeric/minimise.ts';
import { ageAt, bendCurve, curveAt, type CurveSex, type GrowthCurve } from './curve.ts';
import { observe, predict, type Dynamics, type State } from './kalman.ts';

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

/** What the collection says about growth, before anything is known of one animal. */
export interface CollectionGrowth {
  readonly curves: Readonly<Record<CurveSex, GrowthCurve>>;
  readonly dynamics: Dynamics;
  /** Variance of one weighing, of the logarithm. */
  readonly noise: number;
  /** Variance between animals at hatching, of the logarithm. */
  readonly spread: number;
  /** Clutch id -> how its young differ from the curve. */
  readonly clutches: ReadonlyMap<string, { readonly off: number; readonly variance: number }>;
}

/* Of a weighing: the logarithm of mass varies by some 2.5% with bowels and bladder. Common practice, no source; fitted. */
const NOISE = 0.025 ** 2;
const SPREAD = 0.15 ** 2;
const DYNAMICS: Dynamics = { levelVariance: 2e-5, rateVariance: 0.0011 ** 2, rateHalfLife: 60 };
/** Days after a meal in which a weight holds the meal. */
const MEAL_DAYS = 3;
/** Without a meal for so long nothing grows, and this share is lost in a day. Common practice, no source. */
const FAST_AFTER_DAYS = 21;
const FAST_LOSS_A_DAY = 0.0006;
/** A laying takes about so much of her weight, give or take. Common practice, no source. */
const LAYING = { share: 0.28, sd: 0.08 };
/** So many standard deviations from what was expected: is it the right animal? */
export const OUTLIER_Z = 3.5;

interface Path {
  readonly state: State;
  readonly on: IsoDay;
}

/** The age that counts: of an animal without a hatch day, the age at which the curve has its first weight. */
function birthday(subject: GrowthSubject, curve: GrowthCurve): IsoDay | null {
  if (subject.hatchedOn) return subject.hatchedOn;
  const first = subject.weights[0];
  return first ? addDays(first.on, -ageAt(curve, first.massG)) : null;
}

function begin(subject: GrowthSubject, born: IsoDay, collection: CollectionGrowth): Path {
  const clutch = subject.clutchId === null ? undefined : collection.clutches.get(subject.clutchId);
  const first = subject.weights[0]?.on ?? born;
  // One that was first weighed grown has had its whole life to differ from the curve.
  const age = Math.max(0, daysBetween(born, first));
  const state: State = {
    level: clutch?.off ?? 0,
    rate: 0,
    vLevel: (clutch?.variance ?? collection.spread) + Math.min(age, 730) * 1e-4,
    vRate: collection.dynamics.rateVariance,
    cov: 0,
  };
  return { state, on: first };
}

/** Growth that did not happen because nothing was eaten, and what a laying took, between two days. */
function interruptions(
  subject: GrowthSubject,
  curve: GrowthCurve,
  born: IsoDay,
  from: IsoDay,
  to: IsoDay,
): { shift: number; variance: number } {
  let shift = 0;
  let variance = 0;
  for (const laid of subject.laidOn) {
    if (laid <= from || laid > to) continue;
    shift += Math.log(1 - LAYING.share);
    variance += (LAYING.sd / (1 - LAYING.share)) ** 2;
  }
  const hungry = hungryDays(subject, from, to);
  if (hungry > 0) {
    const span = daysBetween(from, to);
    const growth = curveAt(curve, daysBetween(born, to)) - curveAt(curve, daysBetween(born, from));
    const share = hungry / span;
    shift += -growth * share - FAST_LOSS_A_DAY * hungry;
    variance += (0.5 * FAST_LOSS_A_DAY * hungry) ** 2 + (0.3 * growth * share) ** 2;
  }
  return { shift, variance };
}

/** Days between two, on which the last meal lay over three weeks back. None where no meal was ever recorded. */
function hungryDays(subject: GrowthSubject, from: IsoDay, to: IsoDay): number {
  const taken = subject.feedings.filter((offer) => offer.taken);
  if (taken.length === 0) return 0;
  let hungry = 0;
  const gap = (meal: IsoDay, next: IsoDay): void => {
    const begins = addDays(meal, FAST_AFTER_DAYS);
    const start = begins > from ? begins : from;
    const end = next < to ? next : to;
    if (start < end) hungry += daysBetween(start, end);
  };
  taken.forEach(({ on }, i) => {
    const next = taken[i + 1]?.on;
    // After the last record nobody knows: only offers that were refused say that it goes hungry.
    gap(on, next ?? subject.feedings.at(-1)!.on);
  });
  return hungry;
}

/** What a weight within days of a meal holds of it: expected share of the logarithm, and its variance. */
function mealIn(subject: GrowthSubject, weight: WeightRecord): { shift: number; variance: number } {
  const meal = subject.feedings.findLast((offer) => offer.taken && offer.on <= weight.on);
  if (!meal || daysBetween(meal.on, weight.on) >= MEAL_DAYS) return { shift: 0, variance: 0 };
  const grams = preyMass(meal.species ?? '', meal.size ?? '') ?? weight.massG * 0.08;
  const share = Math.min(0.3, grams / weight.massG);
  return { shift: 0.5 * share, variance: (0.5 * share) ** 2 };
}

/** A weight with all that its step needs and no variance changes: reckoned once, walked many times. */
interface Stage {
  readonly weight: WeightRecord;
  readonly span: number;
  readonly interruption: { readonly shift: number; readonly variance: number };
  /** Logarithm of mass less the curve and what a meal in the animal is expected to weigh. */
  readonly y: number;
  readonly mealVariance: number;
}

function stagesOf(subject: GrowthSubject, born: IsoDay, curve: GrowthCurve): Stage[] {
  return subject.weights.map((weight, i) => {
    const before = subject.weights[i - 1]?.on ?? weight.on;
    const meal = mealIn(subject, weight);
    return {
      weight,
      span: daysBetween(before, weight.on),
      interruption: interruptions(subject, curve, born, before, weight.on),
      y: Math.log(weight.massG) - curveAt(curve, daysBetween(born, weight.on)) - meal.shift,
      mealVariance: meal.variance,
    };
  });
}

interface Walk {
  readonly last: Path;
  readonly logLikelihood: number;
  /** For each weight: what was expected of it, in standard deviations off. */
  readonly steps: readonly { readonly weight: WeightRecord; readonly z: number; readonly path: Path }[];
}

function walk(begun: Path, stages: readonly Stage[], collection: CollectionGrowth): Walk {
  let path = begun;
  let logLikelihood = 0;
  const steps: { weight: WeightRecord; z: number; path: Path }[] = [];
  for (const { weight, span, interruption, y, mealVariance } of stages) {
    const { shift, variance } = interruption;
    const ahead = predict(path.state, span, collection.dynamics, shift, variance);
    const plain = observe(ahead, y, collection.noise + mealVariance);
    const z = plain.surprise / Math.sqrt(plain.variance);
    // A weight far off, a slip or another animal's, must not drag the curve after it.
    const taken = Math.abs(z) > OUTLIER_Z ? observe(ahead, y, plain.surprise ** 2) : plain;
    logLikelihood += taken.logLikelihood;
    path = { state: taken.state, on: weight.on };
    steps.push({ weight, z, path });
  }
  return { last: path, logLikelihood, steps };
}

function carry(
  subject: GrowthSubject,
  born: IsoDay,
  collection: CollectionGrowth,
  path: Path,
  to: IsoDay,
): State {
  const curve = collection.curves[subject.sex];
  const { shift, variance } = interruptions(subject, curve, born, path.on, to);
  return predict(path.state, daysBetween(path.on, to), collection.dynamics, shift, variance);
}

/**
 * What the animals of a collection have in common: a curve for each sex, how far clutches and animals stray from it, and
 * how noisy a weighing is. The variances are those under which the collection's weights are likeliest.
 *
 * Cost: some hundred passes over all weights.
 */
export function fitCollection(subjects: readonly GrowthSubject[], fitted = true): CollectionGrowth {
  const weighed = subjects.filter(({ weights }) => weights.length > 0);
  const points = (sex: CurveSex) =>
    weighed
      .filter((subject) => subject.hatchedOn !== null && (sex === 'unknown' || subject.sex === sex))
      .map(({ hatchedOn, weights }) =>
        weights.map(({ on, massG }) => ({ age: daysBetween(hatchedOn!, on), massG })),
      );
  const curves = {
    female: bendCurve('female', points('female')),
    male: bendCurve('male', points('male')),
    unknown: bendCurve('unknown', points('unknown')),
  };
  const start: CollectionGrowth = {
    curves,
    dynamics: DYNAMICS,
    noise: NOISE,
    spread: SPREAD,
    clutches: new Map(),
  };
  const tuned = fitted && weighed.length >= MIN_ANIMALS ? tune(sample(weighed), start) : start;
  return { ...tuned, clutches: clutchEffects(weighed, tuned) };
}

/** Fewer animals say too little about variances: the usual ones stand. */
const MIN_ANIMALS = 5;
/** So many animals settle the variances; more would only take time. */
const SAMPLE = 120;

function sample(subjects: readonly GrowthSubject[]): GrowthSubject[] {
  const every = Math.max(1, Math.ceil(subjects.length / SAMPLE));
  return subjects.filter((_, i) => i % every === 0);
}

function tune(subjects: readonly GrowthSubject[], start: CollectionGrowth): CollectionGrowth {
  const at = ([level, rate, noise]: readonly number[]): CollectionGrowth => ({
    ...start,
    dynamics: {
      ...DYNAMICS,
      levelVariance: Math.exp(level!),
      rateVariance: Math.exp(rate!),
    },
    noise: Math.exp(noise!),
  });
  const usual = [DYNAMICS.levelVariance, DYNAMICS.rateVariance, NOISE].map(Math.log);
  const prepared = subjects.map((subject) => {
    const curve = start.curves[subject.sex];
    const born = birthday(subject, curve)!;
    return { subject, born, stages: stagesOf(subject, born, curve) };
  });
  const cost = (x: readonly number[]): number => {
    const collection = at(x);
    let sum = 0;
    for (const { subject, born, stages } of prepared)
      sum -= walk(begin(subject, born, collection), stages, collection).logLikelihood;
    // A weak pull to the usual values (e-fold, one standard deviation 1.5) keeps a small collection sane.
    return sum + x.reduce((pull, value, i) => pull + 0.5 * ((value - usual[i]!) / 1.5) ** 2, 0);
  };
  return at(coordinateDescent(cost, usual, 2.5, { rounds: 5, tolerance: 0.05 }));
}

/**
 * How the young of one clutch differ from the curve: their mean, drawn towards none the more, the fewer they are (the best
 * linear unbiased prediction of a random effect; Robinson 1991, Statistical Science 6, 15-32).
 */
function clutchEffects(
  subjects: readonly GrowthSubject[],
  collection: CollectionGrowth,
): Map<string, { off: number; variance: number }> {
  const within = collection.spread / 2;
  const between = collection.spread / 2;
  const offs = new Map<string, number[]>();
  for (const subject of subjects) {
    const first = subject.weights[0]!;
    if (subject.clutchId === null || subject.hatchedOn === null) continue;
    const age = daysBetween(subject.hatchedOn, first.on);
    if (age > 120) continue;
    const off = Math.log(first.massG) - curveAt(collection.curves[subject.sex], age);
    offs.set(subject.clutchId, [...(offs.get(subject.clutchId) ?? []), off]);
  }
  return new Map(
    [...offs].map(([id, values]) => {
      const noise = within + collection.noise;
      const weight = between / (between + noise / values.length);
      const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
      return [id, { off: weight * mean, variance: within + between * (1 - weight) }];
    }),
  );
}

/** A mass with its 95% interval, grams. */
export interface ExpectedMass {
  readonly on: IsoDay;
  readonly lowG: number;
  readonly midG: number;
  readonly highG: number;
}

export interface Outlier {
  readonly record: string;
  readonly on: IsoDay;
  readonly massG: number;
  /** Standard deviations off. */
  readonly z: number;
}

/** One animal's growth, as read from its weights and the collection's. */
export class Growth {
  readonly #subject: GrowthSubject;
  readonly #collection: CollectionGrowth;
  readonly #born: IsoDay;
  readonly #walk: Walk;

  constructor(subject: GrowthSubject, collection: CollectionGrowth) {
    const born = birthday(subject, collection.curves[subject.sex]);
    if (born === null) throw new RangeError('Growth needs a hatch day or a weight.');
    this.#subject = subject;
    this.#collection = collection;
    this.#born = born;
    const stages = stagesOf(subject, born, collection.curves[subject.sex]);
    this.#walk = walk(begin(subject, born, collection), stages, collection);
  }

  /** Whether anything can be said of this animal. */
  static knows(subject: GrowthSubject): boolean {
    return subject.hatchedOn !== null || subject.weights.length > 0;
  }

  /** Weights that lie far from what was expected of them. */
  get outliers(): Outlier[] {
    return this.#walk.steps
      .filter(({ z }) => Math.abs(z) > OUTLIER_Z)
      .map(({ weight: { id, on, massG }, z }) => ({ record: id, on, massG, z }));
  }

  /** How far the last weight lay from what was expected of it, in standard deviations; null with fewer than two. */
  get lastSurprise(): number | null {
    return this.#walk.steps.length < 2 ? null : this.#walk.steps.at(-1)!.z;
  }

  /** Mean and standard deviation of the logarithm of mass on a day: of the animal itself, not of one weighing. */
  logMass(day: IsoDay): { mean: number; sd: number } {
    const path = this.#pathBefore(day);
    const state = carry(this.#subject, this.#born, this.#collection, path, day < path.on ? path.on : day);
    const curve = this.#collection.curves[this.#subject.sex];
    const mean = state.level + curveAt(curve, Math.max(0, daysBetween(this.#born, day)));
    return { mean, sd: Math.sqrt(state.vLevel) };
  }

  #pathBefore(day: IsoDay): Path {
    const at = this.#walk.steps.findLast(({ path }) => path.on <= day)?.path;
    return at ?? begin(this.#subject, this.#born, this.#collection);
  }

  /** What a weighing on a day should show, given all before it. */
  expected(day: IsoDay): ExpectedMass {
    const { mean, sd } = this.logMass(day);
    const half = 1.96 * Math.hypot(sd, Math.sqrt(this.#collection.noise));
    const g = (log: number): number => Math.round(Math.exp(log) * 10) / 10;
    return { on: day, lowG: g(mean - half), midG: g(mean), highG: g(mean + half) };
  }

  /** What was expected before each weight of the animal, and from the last on every so many days. */
  band(until: IsoDay, everyDays = 14): ExpectedMass[] {
    const days = new Set<IsoDay>();
    const first = this.#subject.weights[0]?.on ?? this.#born;
    for (let day = first; day <= until; day = addDays(day, everyDays)) days.add(day);
    days.add(until);
    return [...days].toSorted().map((day) => this.expected(day));
  }

  /**
   * When it will weigh so much, if it goes on: the first day on which that is as likely as 10%, 50% and 90%.
   *
   * @returns days; null where that lies beyond the horizon
   */
  reaches(massG: number, from: IsoDay, horizonDays = 1095): Reach {
    const wanted = Math.log(massG);
    const day = (z: number): IsoDay | null => {
      for (let ahead = 0; ahead <= horizonDays; ahead += ahead < 120 ? 2 : 7) {
        const on = addDays(from, ahead);
        const { mean, sd } = this.logMass(on);
        if (mean + z * sd >= wanted) return on;
      }
      return null;
    };
    return { early: day(1.2816), median: day(0), late: day(-1.2816) };
  }

  /** How it stands to the curve of its sex at its age, in logarithm: what a percentile is counted by. */
  offCurve(day: IsoDay): { age: number; off: number } {
    const age = Math.max(0, daysBetween(this.#born, day));
    return { age, off: this.logMass(day).mean - curveAt(this.#collection.curves[this.#subject.sex], age) };
  }
}

export interface Reach {
  readonly early: IsoDay | null;
  readonly median: IsoDay | null;
  readonly late: IsoDay | null;
}

/** Animals compared are of the same sex, and their ages differ by a quarter at most. */
const AGE_SPAN = 0.25;

/**
 * The share of the animals of its sex and age in the collection that are lighter for their age, 0 to 1; ties count half.
 *
 * @returns null with fewer than four to compare with
 */
export function percentile(
  own: { readonly age: number; readonly off: number },
  others: readonly { readonly age: number; readonly off: number }[],
): { share: number; of: number } | null {
  const near = others.filter(({ age }) => Math.abs(age - own.age) <= AGE_SPAN * Math.max(age, own.age, 30));
  if (near.length < 4) return null;
  const below = near.filter(({ off }) => off < own.off).length;
  const same = near.filter(({ off }) => off === own.off).length;
  return { share: (below + same / 2) / near.length, of: near.length };
}

/** Of a hatchling nobody knows yet: logarithm of mass at the end of each week of its life, and its standard deviation. */
export function curveByWeek(collection: CollectionGrowth, weeks: number): { mean: number[]; sd: number[] } {
  const nobody: GrowthSubject = {
    id: '',
    sex: 'unknown',
    hatchedOn: '2000-01-01',
    clutchId: null,
    weights: [],
    feedings: [],
    laidOn: [],
  };
  const growth = new Growth(nobody, collection);
  const masses = Array.from({ length: weeks }, (_, week) =>
    growth.logMass(addDays('2000-01-01', 7 * (week + 1))),
  );
  return { mean: masses.map(({ mean }) => mean), sd: masses.map(({ sd }) => sd) };
}
