import {
  animalTasks,
  appetiteBaseline,
  concerns,
  FEEDING_RULES,
  fitCollection,
  Growth,
  nextMeal,
  ORDER_RULES,
  type AppetiteBaseline,
  type CollectionGrowth,
  type ExpectedMass,
  type Concern,
  type FeedingCircumstances,
  type FeedingRules,
  type GrowthSubject,
  type History,
  type Meal,
  type OrderRules,
  type Task,
} from '@karyotome/core';
import type { Sex } from '@karyotome/contract';
import { createCollectionCache } from '../../cache.ts';
import { select, type Work } from '../../db/work.ts';
import { livingSql } from '../animals/living-sql.ts';
import { openForecasts } from '../season/forecasts.ts';
import {
  adviceKey,
  adviseFor,
  loadEnclosures,
  placeAdvice,
  type Enclosures,
  type PlacedAdvice,
} from '../enclosures/enclosure-advice.ts';
import { plansOf, type StoredPlan } from './feeding-plans.ts';
import { husbandryRecords, toHistory, type ValidRecord } from '../records/history.ts';

type OpenForecasts = Awaited<ReturnType<typeof openForecasts>>;

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

type AnimalRow = Omit<HerdAnimal, 'records' | 'history' | 'gravid' | 'laidOn'> & { revision: string };

/**
 * What was read of an animal, good as long as its revision stands; and what was computed from it, as long as its stamp does.
 * A change makes another one: a reader that is still at work with the old one must not leave its answers in the new.
 */
interface CachedAnimal {
  readonly revision: string;
  readonly records: readonly ValidRecord[];
  readonly history: History;
  readonly stamp: string;
  readonly computed: Map<string, unknown>;
}
interface CachedHerd {
  readonly animals: Map<string, CachedAnimal>;
  /** What the collection has in common, read once a day: it moves slowly, and takes the whole record. */
  growth: { readonly day: string; readonly value: CollectionGrowth } | null;
  /** How often animals of a kind eat, by the rules: read once a day, and at once when the rules change. */
  baseline: { readonly stamp: string; readonly value: AppetiteBaseline } | null;
}

const herds = createCollectionCache<CachedHerd>();

function cachedHerdOf(collectionId: string): CachedHerd {
  const known = herds.get(collectionId);
  if (known) return known;
  const made: CachedHerd = { animals: new Map(), growth: null, baseline: null };
  herds.set(collectionId, made);
  return made;
}

const ROWS_SQL = `
  select id, number, sex, hatched_on as "hatchedOn", clutch_id as "clutchId", tub_id as "tubId", status,
         records_revision as revision
    from animals where collection_id = :collectionId`;
const LIVING = livingSql();

/** What the collection has in common, computed when it is first asked for. */
interface Common {
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

/** The identification that counts, where it is not certain. */
function unsureOf(records: readonly ValidRecord[]): { sure: string; on: string } | null {
  const last = records.findLast((record) => record.kind === 'identification');
  const sure = last?.body['sure'];
  return last && typeof sure === 'string' && sure !== 'certain' ? { sure, on: last.onDay } : null;
}

export function growthSubject(animal: HerdAnimal): GrowthSubject {
  const { id, sex, hatchedOn, clutchId, history, laidOn } = animal;
  return { id, sex, hatchedOn, clutchId, weights: history.weights, feedings: history.feedings, laidOn };
}

/**
 * Reads the herd. What was read before and has not changed since is not read again: each animal counts the changes of its
 * records (a trigger does it), and what this very transaction has written is not kept, as it may be rolled back.
 *
 * @param also - an animal that is read too although it is sold or dead
 */
export async function herdOf(work: Work, also?: string): Promise<Herd> {
  const { collectionId } = work.actor;
  const rows = await select<AnimalRow>(
    work,
    also === undefined ? `${ROWS_SQL} and ${LIVING}` : `${ROWS_SQL} and (id = :also or ${LIVING})`,
    also === undefined ? {} : { also },
  );
  const shared = cachedHerdOf(collectionId);
  const collection = work.isWriting ? copyOf(shared) : shared;
  // Held on to at once: a reader of another moment may put its own in their place while this one waits for the database.
  const current = new Map<string, CachedAnimal>();
  for (const { id, revision } of rows) {
    const known = collection.animals.get(id);
    if (known?.revision === revision) current.set(id, known);
  }
  const stale = rows.filter(({ id }) => !current.has(id));
  const fresh = await husbandryRecords(
    work,
    stale.map(({ id }) => id),
  );
  for (const { id, revision, hatchedOn } of stale) {
    const records = fresh.get(id) ?? [];
    const history = toHistory(hatchedOn, records);
    current.set(id, { revision, records, history, stamp: '', computed: new Map() });
  }
  const forecasts = await openForecasts(work);
  const breeding = await breedingOf(work, forecasts);
  const settings = (await work.models.collections.findByPk(collectionId, {
    transaction: work.transaction,
  }))!.get();
  const plans = await plansOf(work);
  const plansStamp = plans.map(({ id, version }) => `${id}${version}`).join();
  const animals = new Map<string, HerdAnimal>();
  const own = new Map<string, CachedAnimal>();
  for (const { revision: _, ...row } of rows) {
    const known = current.get(row.id)!;
    const gravid = breeding.gravid.has(row.id);
    const laidOn = breeding.laid.get(row.id) ?? [];
    const stamp = [work.today, settings.version, plansStamp, row.sex, row.hatchedOn, gravid, ...laidOn].join(
      '|',
    );
    const entry = known.stamp === stamp ? known : { ...known, stamp, computed: new Map<string, unknown>() };
    const latest = collection.animals.get(row.id);
    if (!latest || BigInt(latest.revision) <= BigInt(entry.revision)) collection.animals.set(row.id, entry);
    own.set(row.id, entry);
    // The hatch day stands in the animal's own row, which does not count as a change of its records.
    const history = { ...entry.history, hatchedOn: row.hatchedOn };
    animals.set(row.id, { ...row, records: entry.records, history, gravid, laidOn });
  }
  const rules = { ...FEEDING_RULES, ...settings.feedingRules };
  const all = (): HerdAnimal[] => [...animals.values()];
  const baselineStamp = `${work.today} ${settings.version}`;
  const common: Common = {
    growth() {
      if (collection.growth?.day !== work.today)
        collection.growth = { day: work.today, value: fitCollection(all().map(growthSubject)) };
      return collection.growth.value;
    },
    baseline() {
      if (collection.baseline?.stamp !== baselineStamp)
        collection.baseline = { stamp: baselineStamp, value: appetiteBaseline(all(), rules) };
      return collection.baseline.value;
    },
  };
  return new Herd(
    {
      today: work.today,
      rules,
      order: { ...ORDER_RULES, ...settings.orderRules },
      rulesVersion: settings.version,
      plans,
      forecasts,
      enclosures: await loadEnclosures(work),
      animals,
    },
    own,
    common,
  );
}

function copyOf(collection: CachedHerd): CachedHerd {
  const animals = [...collection.animals].map(
    ([id, entry]) => [id, { ...entry, computed: new Map(entry.computed) }] as const,
  );
  return { ...collection, animals: new Map(animals) };
}

/** Who is gravid now, and when who has laid. */
async function breedingOf(
  work: Work,
  forecasts: OpenForecasts,
): Promise<{ gravid: Set<string>; laid: Map<string, string[]> }> {
  const laid = await select<{ damId: string; days: string[] }>(
    work,
    `select p.dam_id as "damId", json_agg(c.laid_on order by c.laid_on) as days from clutches c
       join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
      where c.collection_id = :collectionId group by p.dam_id`,
  );
  return {
    gravid: new Set(
      forecasts
        .filter(({ forecast }) => forecast.stage === 'ovulated' || forecast.stage === 'pre-lay')
        .map(({ damId }) => damId),
    ),
    laid: new Map(laid.map(({ damId, days }) => [damId, days])),
  };
}
