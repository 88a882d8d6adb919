import type pg from 'pg';
import { BINNED_PICTURES } from '../files/sweep.ts';

/* The tables of a collection as they are exported: their columns and keys as the database knows them. */

export interface Column {
  readonly name: string;
  /** PostgreSQL's name of its type, as `uuid`, `text`, `int4`, `jsonb`, `_text`. */
  readonly type: string;
  readonly isRequired: boolean;
}

export interface Reference {
  readonly columns: readonly string[];
  readonly table: string;
  readonly keys: readonly string[];
}

export interface Table {
  readonly name: string;
  readonly columns: readonly Column[];
  readonly key: readonly string[];
  readonly references: readonly Reference[];
}

/** What is computed from other rows, what answers repetitions, and what lets people in. */
const LEFT_OUT = [
  'access_tokens',
  'animal_claims',
  'animal_states',
  'due_tasks',
  'herd_days',
  'idempotent_writes',
  'imports',
  'invitations',
  'simulated_mail',
  'webhook_messages',
  'webhooks',
];
/** Columns that are secret, or say nothing outside of this database. */
const SECRET = [
  'token',
  'token_digest',
  'answer_key',
  'sealed_secret',
  'records_revision',
  'genetics_revision',
];

const TABLES_SQL = `
  select c.relname as name,
         (select json_agg(json_build_object('name', a.attname, 'type', t.typname, 'isRequired', a.attnotnull) order by a.attnum)
            from pg_attribute a join pg_type t on t.oid = a.atttypid
           where a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped and a.attname <> all ($2)) as columns,
         coalesce((select json_agg(a.attname order by k.place)
            from pg_constraint p, unnest(p.conkey) with ordinality k (attnum, place)
            join pg_attribute a on a.attnum = k.attnum
           where p.conrelid = c.oid and p.contype = 'p' and a.attrelid = c.oid), '[]') as key,
         coalesce((select json_agg(json_build_object(
             'columns', (select json_agg(a.attname order by k.place) from unnest(f.conkey) with ordinality k (attnum, place)
                           join pg_attribute a on a.attrelid = f.conrelid and a.attnum = k.attnum),
             'table', f.confrelid::regclass::text,
             'keys', (select json_agg(a.attname order by k.place) from unnest(f.confkey) with ordinality k (attnum, place)
                        join pg_attribute a on a.attrelid = f.confrelid and a.attnum = k.attnum)) order by f.conname)
            from pg_constraint f where f.conrelid = c.oid and f.contype = 'f' and f.conparentid = 0), '[]') as references
    from pg_class c
   where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition
     and (c.relname = 'collections' or exists (select from pg_attribute a where a.attrelid = c.oid and a.attname = 'collection_id'))
     and c.relname <> all ($1)
   order by c.relname`;

export async function exportedTables(client: pg.Client): Promise<Table[]> {
  const { rows } = await client.query<Table>(TABLES_SQL, [LEFT_OUT, SECRET]);
  return rows;
}

/** How a column is written: moments in UTC (RFC 3339), lists as JSON, everything else as PostgreSQL writes it. */
function written({ type }: Column, quoted: string): string {
  if (type === 'timestamptz')
    return `to_char(${quoted} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as ${quoted}`;
  if (type.startsWith('_')) return `to_json(${quoted})::text as ${quoted}`;
  return `${quoted}::text as ${quoted}`;
}

const BATCH = 5_000;

/** Rows of a query, as text, in batches: a whole table is in no memory. @param sql - with its values in it */
export async function* batchesOf(client: pg.Client, sql: string): AsyncGenerator<TextRow[]> {
  await client.query(`declare exported no scroll cursor for ${sql}`);
  for (;;) {
    const { rows } = await client.query<TextRow>(`fetch ${BATCH} from exported`);
    if (rows.length > 0) yield rows;
    if (rows.length < BATCH) break;
  }
  await client.query('close exported');
}

export type TextRow = Record<string, string | null>;

/** The rows of a table that are the collection's, in batches, as text; null where there is nothing. */
export function rowsOfTable(
  client: pg.Client,
  table: Table,
  collectionId: string,
): AsyncGenerator<TextRow[]> {
  const name = client.escapeIdentifier(table.name);
  const columns = table.columns.map((column) => written(column, client.escapeIdentifier(column.name)));
  const owner = table.name === 'collections' ? 'id' : 'collection_id';
  const order = table.key.map((column) => client.escapeIdentifier(column)).join(', ');
  return batchesOf(
    client,
    `select ${columns.join(', ')} from ${name}
      where ${owner} = ${client.escapeLiteral(collectionId)}::uuid${order === '' ? '' : ` order by ${order}`}`,
  );
}

/** People whom rows of the collection name: whoever may use it, and whoever recorded in it. */
export async function peopleOf(
  client: pg.Client,
  tables: readonly Table[],
  collectionId: string,
): Promise<{ id: string; name: string }[]> {
  const named = tables.flatMap(({ name, references }) =>
    references
      .filter(({ table }) => table === 'accounts')
      .map(
        ({ columns }) =>
          `select ${client.escapeIdentifier(columns.at(-1)!)} as id from ${client.escapeIdentifier(name)} where collection_id = $1`,
      ),
  );
  const { rows } = await client.query<{ id: string; name: string }>(
    `select id, name from accounts where id in (${named.join(' union ')}) order by id`,
    [collectionId],
  );
  return rows;
}

/** Files that rows of the collection name. */
export async function filesOf(
  client: pg.Client,
  collectionId: string,
): Promise<{ folder: 'pictures' | 'labels' | 'cards'; name: string }[]> {
  const { rows } = await client.query<{ folder: 'pictures' | 'labels' | 'cards'; name: string }>(
    `select folder, name from (
     select 'pictures' as folder, unnest(array[file, original_file]) as name
       from (select file, thumb_file, original_file, collection_id from pictures union all ${BINNED_PICTURES}) pictures
      where collection_id = $1
     union select 'labels', file from label_sheets where collection_id = $1
     union select 'cards', file from clutch_cards where collection_id = $1) files where name is not null`,
    [collectionId],
  );
  return rows;
}

/** Statements that were signed here, as they were signed. */
export async function statementsIn(
  client: pg.Client,
  collectionId: string,
): Promise<{ animalId: string; statement: number; document: string }[]> {
  const { rows } = await client.query<{ animalId: string; statement: number; document: string }>(
    `select animal_id as "animalId", statement, document::text as document from statements
      where collection_id = $1 order by animal_id, statement`,
    [collectionId],
  );
  return rows;
}
