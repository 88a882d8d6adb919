import type pg from 'pg';
import type { Column, Table } from './tables.queries.ts';

/* A collection that comes in: rows as they were exported, under the ids that they had. */

/** What is left out of exports for being secret, where a row cannot be without: addresses that answer nobody, keys that open nothing. */
const INSTEAD_OF_SECRETS: Readonly<Record<string, string>> = {
  token_digest: "encode(sha256(convert_to(gen_random_uuid()::text, 'UTF8')), 'hex')",
  sealed_secret: "''",
};

/** Begins to take in one collection: keys are held against its rows at the end, and it brings its history along. */
export async function beginImport(client: pg.Client): Promise<void> {
  await client.query('begin');
  await client.query("select set_config('karyotome.importing', 'on', true)");
  await client.query('set constraints all deferred');
}

/** How a column is read from what `tables.queries.ts` wrote. */
function read(client: pg.Client, { name, type }: Column): string {
  const text = `given.${client.escapeIdentifier(name)}`;
  if (!type.startsWith('_')) return `${text}::${type}`;
  return `case when ${text} is not null then array(select json_array_elements_text(${text}::json))::${type.slice(1)}[] end`;
}

/** @param rows - text by column; null for nothing */
export async function insertRows(
  client: pg.Client,
  { name, columns }: Table,
  secrets: readonly string[],
  rows: readonly Record<string, string | null>[],
): Promise<void> {
  const names = columns.map((column) => client.escapeIdentifier(column.name));
  const added = secrets.filter((secret) => INSTEAD_OF_SECRETS[secret] !== undefined);
  await client.query(
    `insert into ${client.escapeIdentifier(name)} (${[...names, ...added].join(', ')})
     select ${[...columns.map((column) => read(client, column)), ...added.map((one) => INSTEAD_OF_SECRETS[one])].join(', ')}
       from unnest(${columns.map((_, i) => `$${i + 1}::text[]`).join(', ')}) as given (${names.join(', ')})`,
    columns.map((column) => rows.map((row) => row[column.name] ?? null)),
  );
}

/** Which columns of tables are secret, and needed. */
export async function neededSecrets(client: pg.Client): Promise<ReadonlyMap<string, readonly string[]>> {
  const { rows } = await client.query<{ name: string; columns: string[] }>(
    `select c.relname as name, array_agg(a.attname::text order by a.attnum) as columns
       from pg_attribute a join pg_class c on c.oid = a.attrelid
      where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and a.attnotnull and a.attname = any ($1)
      group by c.relname`,
    [Object.keys(INSTEAD_OF_SECRETS)],
  );
  return new Map(rows.map(({ name, columns }) => [name, columns]));
}

export async function accountIdOf(client: pg.Client, email: string): Promise<string | null> {
  const { rows } = await client.query<{ id: string }>('select id from accounts where email = $1', [email]);
  return rows[0]?.id ?? null;
}

/** People whom the collection names, and who are not here: without an address and a password, they cannot sign in. */
export async function insertPeople(
  client: pg.Client,
  people: readonly { readonly id: string; readonly name: string }[],
): Promise<void> {
  await client.query(
    `insert into accounts (id, email, name, password_hash)
     select id, id || '@not-here.invalid', name, '' from unnest($1::uuid[], $2::text[]) as given (id, name)
     on conflict (id) do nothing`,
    [people.map(({ id }) => id), people.map(({ name }) => name)],
  );
}

export async function insertOwner(
  client: pg.Client,
  { collectionId, accountId }: { readonly collectionId: string; readonly accountId: string },
): Promise<void> {
  await client.query("insert into memberships (collection_id, account_id, role) values ($1, $2, 'owner')", [
    collectionId,
    accountId,
  ]);
  // What is added to the history later comes after what came along.
  await client.query(
    "select setval('history_ids', greatest(nextval('history_ids'), (select coalesce(max(id), 1) from history where collection_id = $1)))",
    [collectionId],
  );
}

/** What waited to be sent where it was exported may have been sent there: a person looks at it first. */
export async function holdLetters(client: pg.Client, collectionId: string): Promise<void> {
  await client.query(
    "update letters set state = 'draft' where collection_id = $1 and state in ('waiting', 'sending')",
    [collectionId],
  );
}

export async function isHere(client: pg.Client, collectionId: string): Promise<boolean> {
  const { rows } = await client.query<{ here: boolean }>(
    'select exists (select from collections where id = $1) as here',
    [collectionId],
  );
  return rows[0]!.here;
}

/** Two collections here cannot have one address. */
export async function isPageNameTaken(client: pg.Client, pageName: string): Promise<boolean> {
  const { rows } = await client.query<{ taken: boolean }>(
    'select exists (select from collections where page_name = $1) as taken',
    [pageName],
  );
  return rows[0]!.taken;
}
