import {
  appetiteBaseline,
  FEEDING_RULES,
  fitCollection,
  ORDER_RULES,
  type AppetiteBaseline,
  type CollectionGrowth,
} from '@karyotome/core';
import { createCollectionCache } from '../../cache.ts';
import { select, type Work } from '../../db/work.ts';
import { livingSql } from '../animals/living-sql.ts';
import { loadEnclosures } from '../enclosures/enclosure-advice.ts';
import { husbandryRecords, toHistory } from '../records/history.ts';
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

type AnimalRow = Omit<HerdAnimal, 'records' | 'history' | 'gravid' | 'laidOn'> & { revision: string };

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
