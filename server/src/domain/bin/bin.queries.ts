import type { BinEntry, BinKind } from '@karyotome/contract';
import { clutchName } from '@karyotome/core';
import type { Transaction } from 'sequelize';
import { rfc3339, rowsOf } from '../../db/statement.ts';
import { select, type Work } from '../../db/work.ts';

/*
 * Rows go into the bin and come back as they are, as JSON. The history tells of the bin's own row, which stands for all of them.
 */

/** Rows by their table. */
export type Content = Readonly<Record<string, readonly Readonly<Record<string, unknown>>[]>>;

interface Loosened {
  readonly tables: readonly string[];
  /** By which their rows name it. */
  readonly column: string;
}

/** Rows that stay, and name it no more. The bin keeps their ids. What letters, questions and wishes say of people can be erased there. */
const LOOSENED: Partial<Readonly<Record<BinKind, Loosened>>> = {
  animal: { tables: ['letters', 'inquiries'], column: 'animal_id' },
  pairing: { tables: ['wishes'], column: 'pairing_id' },
};

const OF_ANIMAL = 'animal_id = :id';
const OF_ITS_STATEMENTS = `${OF_ANIMAL} or taken_id in (
  select id from taken_statements where collection_id = :collectionId and ${OF_ANIMAL})`;

/** Which rows go along, those first that others refer to. Links for a hand-over end for good. */
export const GOING: Readonly<Record<BinKind, Readonly<Record<string, string>>>> = {
  animal: {
    animals: 'id = :id',
    taken_statements: OF_ANIMAL,
    records: OF_ITS_STATEMENTS,
    stated_evidence: OF_ITS_STATEMENTS,
    pictures: OF_ANIMAL,
    observations: OF_ANIMAL,
    opinions: OF_ANIMAL,
    printed_labels: OF_ANIMAL,
    publications: OF_ANIMAL,
    offers: OF_ANIMAL,
    status_events: OF_ANIMAL,
    wish_offers: OF_ANIMAL,
    project_animals: OF_ANIMAL,
    planned_pairings: 'dam_id = :id or sire_id = :id',
  },
  picture: { pictures: 'id = :id' },
  pairing: { pairings: 'id = :id', pairing_sires: 'pairing_id = :id', pairing_events: 'pairing_id = :id' },
  rack: {
    racks: 'id = :id',
    tubs: 'rack_id = :id',
    heat_zones: 'rack_id = :id',
    surface_checks:
      'zone_id in (select id from heat_zones where collection_id = :collectionId and rack_id = :id)',
  },
  'heat-zone': { heat_zones: 'id = :id', surface_checks: 'zone_id = :id' },
};

const OF_A_PROJECT = 'project_id in (select id from projects where collection_id = :collectionId)';

/** Rows that come back only where what they belong to was not removed meanwhile. */
const WHERE_STILL: Readonly<Record<string, string>> = {
  project_animals: OF_A_PROJECT,
  planned_pairings: `${OF_A_PROJECT}
      and dam_id in (select id from animals where collection_id = :collectionId)
      and sire_id in (select id from animals where collection_id = :collectionId)`,
};

/** While rows move, each of them is no write of its own to the history, and keys are held against them at the end. */
export async function beginMove(work: Work): Promise<void> {
  await select(work, "select set_config('karyotome.importing', 'on', true)");
  await select(work, 'set constraints all deferred');
}

export async function endMove(work: Work): Promise<void> {
  await select(work, 'set constraints all immediate');
  await select(work, "select set_config('karyotome.importing', '', true)");
}

/** Takes rows out of their tables. */
export async function takeOut(work: Work, kind: BinKind, id: string): Promise<Content> {
  const content: Record<string, Content[string]> = {};
  const tables = Object.entries(GOING[kind]);
  for (const [table, own] of tables) {
    const rows = await select<{ row: Content[string][number] }>(
      work,
      `select to_jsonb(t) as row from ${table} t where collection_id = :collectionId and (${own})`,
      { id },
    );
    content[table] = rows.map(({ row }) => row);
  }
  const { tables: loose = [], column } = LOOSENED[kind] ?? {};
  for (const table of loose)
    content[table] = await select<{ id: string }>(
      work,
      `select id from ${table} where collection_id = :collectionId and ${column} = :id`,
      { id },
    );
  if (kind === 'animal') {
    // What waits to be sent is looked at by a person first.
    await select(
      work,
      `update letters set state = 'draft' where collection_id = :collectionId and ${OF_ANIMAL} and state = 'waiting'`,
      { id },
    );
    await select(work, `delete from hand_overs where collection_id = :collectionId and ${OF_ANIMAL}`, { id });
  }
  for (const [table, own] of tables.toReversed())
    await select(work, `delete from ${table} where collection_id = :collectionId and (${own})`, { id });
  return content;
}

/** Puts rows back. Columns that came since have their default. */
export async function putBack(work: Work, kind: BinKind, content: Content): Promise<void> {
  for (const table of Object.keys(GOING[kind])) {
    const rows = content[table] ?? [];
    if (rows.length === 0) continue;
    const [known] = await select<{ columns: string[] }>(
      work,
      `select array_agg(quote_ident(column_name)) as columns from information_schema.columns
        where table_schema = 'public' and table_name = :table and column_name in (:names)`,
      { table, names: Object.keys(rows[0]!) },
    );
    const columns = known!.columns.join(', ');
    await select(
      work,
      `insert into ${table} (${columns}) select ${columns} from jsonb_populate_recordset(null::${table}, :rows::jsonb)
        where ${WHERE_STILL[table] ?? 'true'}`,
      { rows: JSON.stringify(rows) },
    );
  }
  const { tables: loose = [], column } = LOOSENED[kind] ?? {};
  const [whole] = content[Object.keys(GOING[kind])[0]!] ?? [];
  for (const table of loose)
    await select(
      work,
      `update ${table} set ${column} = :id::uuid where collection_id = :collectionId and ${column} is null and id in (:ids)`,
      { id: whole!['id'], ids: (content[table] ?? []).map((row) => row['id']) },
    );
}

/** Whether the tub of an animal that comes back is free, whether its egg is there, and how many of its parents are. */
export async function stillFree(
  work: Work,
  params: {
    readonly tubId: string | null;
    readonly eggId: string | null;
    readonly parents: readonly string[];
  },
): Promise<{ tub: boolean; egg: boolean; parents: number }> {
  const [row] = await select<{ tub: boolean; egg: boolean; parents: number }>(
    work,
    `select exists (select from tubs where collection_id = :collectionId and id = :tubId::uuid)
              and not exists (select from animals where collection_id = :collectionId and tub_id = :tubId::uuid) as tub,
            exists (select from eggs where collection_id = :collectionId and id = :eggId::uuid) as egg,
            (select count(*)::int from animals where collection_id = :collectionId and id in (:parents)) as parents`,
    params,
  );
  return row!;
}

/** Which of some people were erased. */
export async function erasedPersons(work: Work, ids: readonly string[]): Promise<Set<string>> {
  const rows = await select<{ id: string }>(
    work,
    'select id from persons where collection_id = :collectionId and id in (:ids) and erased_at is not null',
    { ids },
  );
  return new Set(rows.map(({ id }) => id));
}

/** The numbers of young in the bin whose parent an animal is. */
export async function youngInBin(work: Work, params: { readonly id: string }): Promise<string[]> {
  const rows = await select<{ number: string }>(
    work,
    `select number from bin where collection_id = :collectionId and state = 'kept' and kind = 'animal'
        and :id in (content #>> '{animals,0,dam_id}', content #>> '{animals,0,sire_id}') order by number`,
    params,
  );
  return rows.map(({ number }) => number);
}

/** In how many pairings an animal is named. */
export async function pairingsOf(work: Work, params: { readonly id: string }): Promise<number> {
  const [row] = await select<{ count: number }>(
    work,
    `select (select count(*) from pairings where collection_id = :collectionId and dam_id = :id)::int
            + (select count(*) from pairing_sires where collection_id = :collectionId and sire_id = :id)::int
            + (select count(*) from pairing_events where collection_id = :collectionId and sire_id = :id)::int as count`,
    params,
  );
  return row!.count;
}

/** Animals of which a statement was signed. */
export const statedAnimals = (work: Work): Promise<{ id: string; number: string }[]> =>
  select<{ id: string; number: string }>(
    work,
    `select a.id, a.number from animals a where a.collection_id = :collectionId
        and exists (select from statements s where s.collection_id = a.collection_id and s.animal_id = a.id)
      order by a.number`,
  );

/** What a picture is of: an animal's number, or a clutch's name. */
export async function pictureSubject(work: Work, params: { readonly id: string }): Promise<string> {
  const [row] = await select<{ number: string | null; season: number; ordinal: number }>(
    work,
    `select a.number, c.season, c.ordinal from pictures p
       left join animals a on a.collection_id = p.collection_id and a.id = p.animal_id
       left join clutches c on c.collection_id = p.collection_id and c.id = p.clutch_id
      where p.collection_id = :collectionId and p.id = :id`,
    params,
  );
  return row!.number ?? clutchName(row!.season, row!.ordinal);
}

export interface KeptEntry {
  readonly id: string;
  readonly kind: BinKind;
  readonly animalId: string | null;
  readonly number: string;
  readonly content: Content;
}

export async function insertEntry(
  work: Work,
  entry: KeptEntry & {
    readonly name: string | null;
    readonly reason: string | null;
    readonly authorId: string;
  },
): Promise<void> {
  await select(
    work,
    `insert into bin (collection_id, id, kind, animal_id, number, name, reason, author_id, content)
     values (:collectionId, :id, :kind, :animalId, :number, :name, :reason, :authorId, :content)`,
    { ...entry, content: JSON.stringify(entry.content) },
  );
}

const KEPT = `select id, kind, animal_id as "animalId", number, content from bin where collection_id = :collectionId and state = 'kept'`;

export async function keptEntry(work: Work, id: string): Promise<KeptEntry | null> {
  const [entry] = await select<KeptEntry>(work, `${KEPT} and id = :id`, { id });
  return entry ?? null;
}

/** Everything in the bin of an animal: itself, and pictures that were deleted before it. */
export const keptOfAnimal = (work: Work, params: { readonly animalId: string }): Promise<KeptEntry[]> =>
  select<KeptEntry>(work, `${KEPT} and animal_id = :animalId`, params);

export async function endEntries(
  work: Work,
  ids: readonly string[],
  state: 'restored' | 'erased',
): Promise<void> {
  await select(
    work,
    `update bin set state = :state, content = null where collection_id = :collectionId and id in (:ids)`,
    { ids, state },
  );
}

/** What is in the bin, the latest first. */
export function binEntries(work: Work, days: number): Promise<BinEntry[]> {
  return select<BinEntry>(
    work,
    `select b.id, b.kind, b.number, b.name, b.reason, who.name as by, ${rfc3339('b.deleted_at')} as "deletedAt",
            ((b.deleted_at + make_interval(days => :days)) at time zone :zone)::date::text as "erasedOn",
            jsonb_array_length(coalesce(b.content -> 'records', '[]')) as records,
            jsonb_array_length(coalesce(b.content -> 'pictures', '[]')) as pictures
       from bin b join accounts who on who.id = b.author_id
      where b.collection_id = :collectionId and b.state = 'kept' order by b.deleted_at desc, b.id`,
    { days, zone: work.timeZone },
  );
}

/** Erases, in every collection, what was deleted so long ago. */
export async function eraseExpired(transaction: Transaction, days: number): Promise<Content[]> {
  const rows = await rowsOf<{ content: Content }>(
    transaction,
    `with gone as (select collection_id, id, content from bin
                    where state = 'kept' and deleted_at < now() - make_interval(days => :days) for update skip locked)
     update bin b set state = 'erased', content = null from gone g
      where b.collection_id = g.collection_id and b.id = g.id returning g.content`,
    { days },
  );
  return rows.map(({ content }) => content);
}
