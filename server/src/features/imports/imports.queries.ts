import type { ImportPlan, ImportSummary, ImportWord } from '@karyotome/contract';
import { GOING } from '../../domain/bin/bin.queries.ts';
import { rfc3339 } from '../../db/statement.ts';
import { select, type Actor, type Work } from '../../db/work.ts';
import type { KnownAnimal } from './file-items.ts';

/** What a file's rows may refer to, by number. */
export function animalsByNumber(work: Work): Promise<KnownAnimal[]> {
  return select<KnownAnimal>(
    work,
    `select id, number, sex, hatched_on as "hatchedOn", dam_id as "damId", sire_id as "sireId", clutch_id as "clutchId"
       from animals where collection_id = :collectionId order by number`,
  );
}

export const rememberedWords = (work: Work): Promise<ImportWord[]> =>
  select<ImportWord>(work, 'select field, word, value from import_words where collection_id = :collectionId');

export async function rememberWords(work: Work, words: readonly ImportWord[]): Promise<void> {
  await select(
    work,
    `insert into import_words (collection_id, field, word, value)
     select :collectionId, field, word, value from jsonb_to_recordset(:words::jsonb) as given (field text, word text, value text)
     on conflict (collection_id, field, word) do update set value = excluded.value
      where import_words.value is distinct from excluded.value`,
    { words: JSON.stringify(words) },
  );
}

/** The parents of an animal before a file came in, and after. */
export interface ParentsChange {
  readonly id: string;
  readonly was: readonly [dam: string | null, sire: string | null];
  readonly becomes: readonly [dam: string | null, sire: string | null];
}

/** What a file brought in, by ids: all of it can be taken back. */
export interface Made {
  readonly animals?: readonly string[];
  readonly records?: readonly string[];
  readonly clutches?: readonly string[];
  readonly pairings?: readonly string[];
  readonly parents?: readonly ParentsChange[];
}

/** What was written of a file. */
export interface Written {
  readonly rows: number;
  readonly made: Made;
}

export interface ImportRow extends Omit<ImportSummary, 'kind'> {
  readonly plan: ImportPlan;
}

const SUMMARY = `select i.id, i.file_name as "fileName", i.plan, i.state, who.name as by, ${rfc3339('i.created_at')} as at,
    i.row_count as rows from imports i join accounts who on who.id = i.author_id where i.collection_id = :collectionId`;

/** The latest first. */
export const importRows = (work: Work): Promise<ImportRow[]> =>
  select<ImportRow>(work, `${SUMMARY} order by i.created_at desc, i.id`);

export async function importRow(work: Work, id: string): Promise<ImportRow | null> {
  const [row] = await select<ImportRow>(work, `${SUMMARY} and i.id = :id`, { id });
  return row ?? null;
}

/** A draft's file. */
export async function bytesOf(work: Work, id: string): Promise<Buffer> {
  const [row] = await select<{ bytes: Buffer }>(
    work,
    "select bytes from imports where collection_id = :collectionId and id = :id and state = 'draft'",
    { id },
  );
  return row!.bytes;
}

export async function madeBy(work: Work, id: string): Promise<Made | null> {
  const [row] = await select<{ made: Made }>(
    work,
    "select made from imports where collection_id = :collectionId and id = :id and state = 'done'",
    { id },
  );
  return row?.made ?? null;
}

export async function insertImport(
  work: Work<Actor>,
  draft: {
    readonly id: string;
    readonly fileName: string;
    readonly bytes: Buffer;
    readonly plan: ImportPlan;
  },
): Promise<void> {
  const { bytes, plan, ...rest } = draft;
  await select(
    work,
    `insert into imports (collection_id, id, file_name, author_id, bytes, plan)
     values (:collectionId, :id, :fileName, :accountId, decode(:bytes, 'base64'), :plan)`,
    { ...rest, accountId: work.actor.accountId, bytes: bytes.toString('base64'), plan: JSON.stringify(plan) },
  );
}

export async function setPlan(work: Work, id: string, plan: ImportPlan): Promise<void> {
  await select(work, 'update imports set plan = :plan where collection_id = :collectionId and id = :id', {
    id,
    plan: JSON.stringify(plan),
  });
}

export async function setDone(work: Work, id: string, rows: number, made: Made): Promise<void> {
  await select(
    work,
    `update imports set state = 'done', bytes = null, row_count = :rows, made = :made
      where collection_id = :collectionId and id = :id`,
    { id, rows, made: JSON.stringify(made) },
  );
}

export async function setUndone(work: Work, id: string): Promise<void> {
  await select(
    work,
    "update imports set state = 'undone', made = null where collection_id = :collectionId and id = :id",
    { id },
  );
}

export async function deleteDraft(work: Work, id: string): Promise<boolean> {
  const rows = await select(
    work,
    "delete from imports where collection_id = :collectionId and id = :id and state = 'draft' returning id",
    { id },
  );
  return rows.length > 0;
}

/** A record as it is written, or looked for. */
export interface RecordToWrite {
  readonly id: string;
  readonly line: number;
  readonly animal_id: string;
  readonly on_day: string;
  readonly body: object;
  readonly note: string | null;
}

const GIVEN =
  'jsonb_to_recordset(:rows::jsonb) as given (id uuid, line int, animal_id uuid, on_day date, body jsonb, note text)';

/** The lines whose records are there already, and say the same. */
export async function linesThere(
  work: Work,
  kind: string,
  rows: readonly RecordToWrite[],
): Promise<Set<number>> {
  const found = await select<{ line: number }>(
    work,
    `select given.line from ${GIVEN}
      where exists (select from records r where r.collection_id = :collectionId and r.animal_id = given.animal_id
         and r.kind = :kind and r.on_day = given.on_day and r.voided_at is null and r.body @> given.body)`,
    { kind, rows: JSON.stringify(rows) },
  );
  return new Set(found.map(({ line }) => line));
}

export async function insertRecords(
  work: Work<Actor>,
  kind: string,
  rows: readonly RecordToWrite[],
): Promise<void> {
  await select(
    work,
    `insert into records (collection_id, id, animal_id, kind, on_day, body, note, author_id)
     select :collectionId, id, animal_id, :kind, on_day, body, note, :accountId from ${GIVEN}`,
    { kind, accountId: work.actor.accountId, rows: JSON.stringify(rows) },
  );
}

/** Sets parents, where they are what they were. @returns how many were set */
export async function setParents(work: Work, parents: readonly ParentsChange[]): Promise<number> {
  const rows = parents.map(({ id, was, becomes }) => ({
    id,
    dam_was: was[0],
    sire_was: was[1],
    dam_id: becomes[0],
    sire_id: becomes[1],
  }));
  const changed = await select(
    work,
    `update animals a set dam_id = given.dam_id, sire_id = given.sire_id, version = a.version + 1
       from jsonb_to_recordset(:rows::jsonb) as given (id uuid, dam_was uuid, sire_was uuid, dam_id uuid, sire_id uuid)
      where a.collection_id = :collectionId and a.id = given.id and a.dam_id is not distinct from given.dam_was
        and a.sire_id is not distinct from given.sire_was
      returning a.id`,
    { rows: JSON.stringify(rows) },
  );
  return changed.length;
}

/** They hold what the file itself made, or name an animal as a parent. */
const ASKED_APART: readonly string[] = ['animals', 'records', 'planned_pairings'];

/** Numbers of animals to which something was added since they came in by a file, and so cannot be taken back. */
export async function animalsInUse(work: Work, made: Made): Promise<string[]> {
  const own = Object.keys(GOING.animal).filter((table) => !ASKED_APART.includes(table));
  const uses = [
    ...own.map((table) => `select animal_id as id from ${table} where collection_id = :collectionId`),
    'select dam_id from planned_pairings where collection_id = :collectionId',
    'select sire_id from planned_pairings where collection_id = :collectionId',
    'select animal_id from statements where collection_id = :collectionId',
    'select dam_id from pairings where collection_id = :collectionId and id not in (select unnest(:pairings::uuid[]))',
    `select sire_id from pairing_sires where collection_id = :collectionId and pairing_id not in (select unnest(:pairings::uuid[]))`,
    'select animal_id from records where collection_id = :collectionId and animal_id in (:animals) and id not in (select unnest(:records::uuid[]))',
    'select dam_id from animals where collection_id = :collectionId and id not in (select unnest(:animals::uuid[]))',
    'select sire_id from animals where collection_id = :collectionId and id not in (select unnest(:animals::uuid[]))',
  ];
  const rows = await select<{ number: string }>(
    work,
    `select number from animals where collection_id = :collectionId and id in (:animals)
        and id in (${uses.join(' union all ')}) order by number limit 6`,
    { animals: made.animals ?? [], records: made.records ?? [], pairings: made.pairings ?? [] },
  );
  return rows.map(({ number }) => number);
}

/** Names of clutches to which something was added since they came in by a file. */
export async function clutchesInUse(work: Work, made: Made): Promise<{ season: number; ordinal: number }[]> {
  return select<{ season: number; ordinal: number }>(
    work,
    `select season, ordinal from clutches c where c.collection_id = :collectionId and c.id in (:clutches) and (
        exists (select from animals a where a.collection_id = c.collection_id and a.clutch_id = c.id
                  and a.id not in (select unnest(:animals::uuid[])))
        or exists (select from egg_events e where e.collection_id = c.collection_id and e.clutch_id = c.id)
        or exists (select from pictures p where p.collection_id = c.collection_id and p.clutch_id = c.id)
        or exists (select from opinion_links l where l.collection_id = c.collection_id and l.clutch_id = c.id)
        or exists (select from clutch_cards k where k.collection_id = c.collection_id and k.clutch_id = c.id)
        or exists (select from clutch_sortings s where s.collection_id = c.collection_id and s.clutch_id = c.id))
      order by season, ordinal limit 6`,
    { clutches: made.clutches ?? [], animals: made.animals ?? [] },
  );
}

/** Deletes what a file made; numbers of its animals can be given again. */
export async function deleteMade(work: Work, made: Made): Promise<void> {
  const { animals = [], records = [], clutches = [], pairings = [] } = made;
  await select(work, 'set constraints all deferred');
  await select(work, 'delete from records where collection_id = :collectionId and id in (:records)', {
    records,
  });
  await select(
    work,
    `delete from used_numbers u using animals a where u.collection_id = :collectionId
        and a.collection_id = u.collection_id and a.number = u.number and a.id in (:animals)`,
    { animals },
  );
  await select(work, 'delete from animals where collection_id = :collectionId and id in (:animals)', {
    animals,
  });
  await select(work, 'delete from clutches where collection_id = :collectionId and id in (:clutches)', {
    clutches,
  });
  await select(
    work,
    `delete from pairings p where p.collection_id = :collectionId and p.id in (:pairings)
        and not exists (select from clutches c where c.collection_id = p.collection_id and c.pairing_id = p.id)`,
    { pairings },
  );
  await select(work, 'set constraints all immediate');
}

/** A pairing of a dam with just these males, that had begun by a day, in a season. */
export async function pairingOf(
  work: Work,
  params: {
    readonly damId: string;
    readonly sires: readonly string[];
    readonly season: number;
    readonly by: string;
  },
): Promise<string | null> {
  const [row] = await select<{ id: string }>(
    work,
    `select p.id from pairings p where p.collection_id = :collectionId and p.dam_id = :damId and p.season = :season
        and p.started_on <= :by::date
        and (select array_agg(s.sire_id order by s.sire_id) from pairing_sires s
              where s.collection_id = p.collection_id and s.pairing_id = p.id)
          = (select array_agg(x order by x) from unnest(:sires::uuid[]) x)
      order by p.started_on desc limit 1`,
    params,
  );
  return row?.id ?? null;
}
