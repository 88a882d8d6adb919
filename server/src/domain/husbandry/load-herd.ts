import {
  appetiteBaseline,
  FEEDING_RULES,
  fitCollection,
  ORDER_RULES,
  type AppetiteBaseline,
  type CollectionGrowth,
  type FeedingRules,
} from '@karyotome/core';
import { createCollectionCache } from '../../cache.ts';
import type { Work } from '../../db/work.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { loadEnclosures } from '../enclosures/enclosure-advice.ts';
import { husbandryRecords } from '../records/history.queries.ts';
import { toHistory } from '../records/history.ts';
import { openForecasts } from '../season/forecasts.ts';
import { plansOf } from './feeding-plans.ts';
import {
  growthSubject,
  Herd,
  type CachedAnimal,
  type Common,
  type HerdAnimal,
  type OpenForecasts,
} from './herd.ts';
import { type AnimalRow, layDays, livingAnimals } from './herd.queries.ts';

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

/**
 * Reads the herd. What was read before and has not changed since is not read again: each animal counts the changes of its
 * records (a trigger does it), and what this very transaction has written is not kept, as it may be rolled back.
 *
 * @param also - an animal that is read too although it is sold or dead
 */
export async function herdOf(work: Work, also?: string): Promise<Herd> {
  const { collectionId } = work.actor;
  const rows = await livingAnimals(work, also);
  const shared = cachedHerdOf(collectionId);
  const collection = work.isWriting ? copyOf(shared) : shared;
  const current = await upToDate(work, rows, collection);
  const forecasts = await openForecasts(work);
  const breeding = await breedingOf(work, forecasts);
  const settings = await collectionOf(work);
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
    commonOf(work, collection, [...animals.values()], { rules, settingsVersion: settings.version }),
  );
}

/** What is kept of each animal, read anew where its records have changed since. */
async function upToDate(
  work: Work,
  rows: readonly AnimalRow[],
  collection: CachedHerd,
): Promise<Map<string, CachedAnimal>> {
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
  return current;
}

/** What the whole collection is read for: once a day, when somebody asks. */
function commonOf(
  { today }: Work,
  collection: CachedHerd,
  animals: readonly HerdAnimal[],
  { rules, settingsVersion }: { rules: FeedingRules; settingsVersion: number },
): Common {
  const stamp = `${today} ${settingsVersion}`;
  return {
    growth() {
      if (collection.growth?.day !== today)
        collection.growth = { day: today, value: fitCollection(animals.map(growthSubject)) };
      return collection.growth.value;
    },
    baseline() {
      if (collection.baseline?.stamp !== stamp)
        collection.baseline = { stamp, value: appetiteBaseline(animals, rules) };
      return collection.baseline.value;
    },
  };
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
  const laid = await layDays(work);
  return {
    gravid: new Set(
      forecasts
        .filter(({ forecast }) => forecast.stage === 'ovulated' || forecast.stage === 'pre-lay')
        .map(({ damId }) => damId),
    ),
    laid: new Map(laid.map(({ damId, days }) => [damId, days])),
  };
}
