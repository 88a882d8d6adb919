import { addDays, type IsoDay } from '../calendar/days.ts';
import { begin, OUTLIER_Z, walk, type CollectionGrowth, type Walk } from './collection.ts';
import { curveAt } from './curve.ts';
import { predict } from './kalman.ts';
import { dayNumber, interruptions, prepare, type GrowthSubject, type Prepared } from './prepare.ts';

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

/** One animal's growth, as read from its weights and the collection's. Only of one that `Growth.knows`. */
export class Growth {
  readonly #prepared: Prepared;
  readonly #collection: CollectionGrowth;
  readonly #walk: Walk;

  /** @throws RangeError where nothing can be said of the animal */
  constructor(subject: GrowthSubject, collection: CollectionGrowth) {
    const prepared = prepare(subject, collection.curves[subject.sex]);
    if (prepared === null) throw new RangeError('Growth needs a hatch day or a weight.');
    this.#prepared = prepared;
    this.#collection = collection;
    this.#walk = walk(prepared, collection);
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
  logMass(on: IsoDay): { mean: number; sd: number } {
    return this.#logMass(dayNumber(on));
  }

  #logMass(day: number): { mean: number; sd: number } {
    const path =
      this.#walk.steps.findLast((step) => step.path.day <= day)?.path ??
      begin(this.#prepared, this.#collection);
    const to = Math.max(day, path.day);
    const { shift, variance } = interruptions(this.#prepared, path.day, to);
    const state = predict(path.state, to - path.day, this.#collection.dynamics, shift, variance);
    const mean = state.level + curveAt(this.#prepared.curve, Math.max(0, day - this.#prepared.born));
    return { mean, sd: Math.sqrt(state.vLevel) };
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
    const { stages, born } = this.#prepared;
    const first = stages[0]?.weight.on ?? addDays('1970-01-01', born);
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
    const start = dayNumber(from);
    const day = (z: number): IsoDay | null => {
      for (let ahead = 0; ahead <= horizonDays; ahead += ahead < 120 ? 2 : 7) {
        const { mean, sd } = this.#logMass(start + ahead);
        if (mean + z * sd >= wanted) return addDays(from, ahead);
      }
      return null;
    };
    return { early: day(1.2816), median: day(0), late: day(-1.2816) };
  }

  /** How it stands to the curve of its sex at its age, in logarithm: what a percentile is counted by. */
  offCurve(day: IsoDay): { age: number; off: number } {
    const age = Math.max(0, dayNumber(day) - this.#prepared.born);
    return { age, off: this.logMass(day).mean - curveAt(this.#prepared.curve, age) };
  }
}

export interface Reach {
  readonly early: IsoDay | null;
  readonly median: IsoDay | null;
  readonly late: IsoDay | null;
}

/** Animals compared are of the same sex, and their ages differ by this share of the older one's at most. */
export const COMPARED_AGE_SHARE = 0.25;
/** Animals younger than this count as this old, days. */
export const LEAST_COMPARED_DAYS = 30;
/** Fewer say nothing. */
const LEAST_COMPARED = 4;

/** Others of about one age and of one sex: how many are lighter for their age, and how many weigh the same. */
export interface Compared {
  readonly below: number;
  readonly same: number;
  readonly of: number;
}

/**
 * The share of the animals of its sex and age in the collection that are lighter for their age, 0 to 1; ties count half.
 *
 * @returns null with fewer than four to compare with
 * @example percentile({ below: 2, same: 1, of: 4 }) // {"share": 0.625, "of": 4}
 */
export function percentile({ below, same, of }: Compared): { share: number; of: number } | null {
  return of < LEAST_COMPARED ? null : { share: (below + same / 2) / of, of };
}

/**
 * Of a hatchling nobody knows yet: logarithm of mass at the end of each week of its life, and its standard deviation.
 *
 * @example curveByWeek(fitCollection([]), 3).mean.length // 3
 */
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
