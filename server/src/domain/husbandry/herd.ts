import type { Sex } from '@karyotome/contract';
import {
  animalTasks,
  concerns,
  Growth,
  nextMeal,
  type AppetiteBaseline,
  type CollectionGrowth,
  type Concern,
  type ExpectedMass,
  type FeedingCircumstances,
  type FeedingRules,
  type GrowthSubject,
  type History,
  type Meal,
  type OrderRules,
  type Task,
} from '@karyotome/core';
import {
  adviceKey,
  adviseFor,
  placeAdvice,
  type Enclosures,
  type PlacedAdvice,
} from '../enclosures/enclosure-advice.ts';
import type { ValidRecord } from '../records/history.ts';
import { openForecasts } from '../season/forecasts.ts';
import type { StoredPlan } from './feeding-plans.ts';

export type OpenForecasts = Awaited<ReturnType<typeof openForecasts>>;

/** One living animal, as husbandry reads it. */
export interface HerdAnimal {
  readonly id: string;
  readonly number: string;
  readonly sex: Sex;
  readonly hatchedOn: string | null;
  readonly clutchId: string | null;
  readonly tubId: string | null;
  readonly status: string;
  readonly records: readonly ValidRecord[];
  readonly history: History;
  readonly gravid: boolean;
  readonly laidOn: readonly string[];
}

/**
 * What was read of an animal, good as long as its revision stands; and what was computed from it, as long as its stamp does.
 * A change makes another one: a reader that is still at work with the old one must not leave its answers in the new.
 */
export interface CachedAnimal {
  readonly revision: string;
  readonly records: readonly ValidRecord[];
  readonly history: History;
  readonly stamp: string;
  readonly computed: Map<string, unknown>;
}

/** What the collection has in common, computed when it is first asked for. */
export interface Common {
  growth(): CollectionGrowth;
  baseline(): AppetiteBaseline;
}

/** The living animals of a collection with all that husbandry computes of them, each at most once per change. */
export class Herd {
  readonly today: string;
  readonly rules: FeedingRules;
  readonly order: OrderRules;
  readonly rulesVersion: number;
  readonly plans: readonly StoredPlan[];
  /** Where the pairings without eggs stand. */
  readonly forecasts: OpenForecasts;
  readonly enclosures: Enclosures;
  readonly animals: ReadonlyMap<string, HerdAnimal>;
  readonly #kept: ReadonlyMap<string, CachedAnimal>;
  readonly #common: Common;

  constructor(
    parts: Pick<
      Herd,
      'today' | 'rules' | 'order' | 'rulesVersion' | 'plans' | 'forecasts' | 'enclosures' | 'animals'
    >,
    keptAnimals: ReadonlyMap<string, CachedAnimal>,
    common: Common,
  ) {
    this.today = parts.today;
    this.rules = parts.rules;
    this.order = parts.order;
    this.rulesVersion = parts.rulesVersion;
    this.plans = parts.plans;
    this.forecasts = parts.forecasts;
    this.enclosures = parts.enclosures;
    this.animals = parts.animals;
    this.#kept = keptAnimals;
    this.#common = common;
  }

  animal(id: string): HerdAnimal {
    return this.animals.get(id)!;
  }

  #once<T>(id: string, what: string, compute: (animal: HerdAnimal) => T): T {
    const { computed } = this.#kept.get(id)!;
    if (!computed.has(what)) computed.set(what, compute(this.animal(id)));
    return computed.get(what) as T;
  }

  circumstances(id: string): FeedingCircumstances {
    const { sex, gravid } = this.animal(id);
    return { sex, gravid };
  }

  meal(id: string): Meal | null {
    return this.#once(id, 'meal', ({ history }) =>
      nextMeal(history, this.today, this.circumstances(id), this.rules, this.plans),
    );
  }

  /** Null where nothing is known to grow from. */
  growth(id: string): Growth | null {
    return this.#once(id, 'growth', (animal) => {
      const subject = growthSubject(animal);
      return Growth.knows(subject) ? new Growth(subject, this.#common.growth()) : null;
    });
  }

  /** What a weighing today should show; null where nothing is known. */
  expectedToday(id: string): ExpectedMass | null {
    return this.#once(id, 'expected', () => this.growth(id)?.expected(this.today) ?? null);
  }

  /** How it stands to the curve today; null where nothing is known. */
  offCurve(id: string): { age: number; off: number } | null {
    return this.#once(id, 'off-curve', () => this.growth(id)?.offCurve(this.today) ?? null);
  }

  concerns(id: string): readonly Concern[] {
    return this.#once(id, 'concerns', (animal) =>
      concerns(
        { ...animal, lastSurprise: this.growth(id)?.lastSurprise ?? null },
        this.#common.baseline(),
        this.today,
      ),
    );
  }

  /** Which tubs are free is looked up each time; the advice itself is kept. */
  advice(id: string): PlacedAdvice {
    const { tubId, history, gravid } = this.animal(id);
    const advice = this.#once(id, `advice ${adviceKey(this.enclosures, tubId, history)}`, () =>
      adviseFor(this.enclosures, tubId, history, this.today, gravid),
    );
    return placeAdvice(this.enclosures, tubId, history, advice);
  }

  /** What it needs today. @param identified - as the genetics of the collection have it */
  tasks(id: string, identified: boolean): readonly Task[] {
    const { tubId, history, sex, records } = this.animal(id);
    const key = `tasks ${identified} ${adviceKey(this.enclosures, tubId, history)}`;
    return this.#once(id, key, () =>
      animalTasks(
        {
          history,
          sex: { sex, on: records.findLast((record) => record.kind === 'sex')?.onDay ?? null },
          identified,
          unsure: unsureOf(records),
          advice: this.advice(id),
          meal: this.meal(id),
          concerns: this.concerns(id),
          cleanEveryDays: this.rules.cleanEveryDays,
        },
        this.today,
      ),
    );
  }

  get collectionGrowth(): CollectionGrowth {
    return this.#common.growth();
  }
}

export function growthSubject(animal: HerdAnimal): GrowthSubject {
  const { id, sex, hatchedOn, clutchId, history, laidOn } = animal;
  return { id, sex, hatchedOn, clutchId, weights: history.weights, feedings: history.feedings, laidOn };
}

/** The identification that counts, where it is not certain. */
function unsureOf(records: readonly ValidRecord[]): { sure: string; on: string } | null {
  const last = records.findLast((record) => record.kind === 'identification');
  const sure = last?.body['sure'];
  return last && typeof sure === 'string' && sure !== 'certain' ? { sure, on: last.onDay } : null;
}
