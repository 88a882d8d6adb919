import pg from 'pg';
import { WITHOUT_ROWS, type TableSummary } from './archive.ts';
import { NAMED_SQL } from '../files/sweep.ts';
import type { StoredFile } from '../files/file-store.ts';

/* What a database holds at one moment, seen over a connection of its own. */

/** Rows as text are the same on every server only where these are. */
const TEXT_SETTINGS = [
  "set timezone = 'UTC'",
  "set datestyle = 'ISO'",
  "set intervalstyle = 'postgres'",
  'set extra_float_digits = 1',
  "set bytea_output = 'hex'",
  // A large collection takes as long as it takes.
  'set statement_timeout = 0',
  'set idle_in_transaction_session_timeout = 0',
];

/** Held by a backup while it runs: files are removed by nobody meanwhile. Any number. */
const BACKUP_LOCK = 20_261_130;

/** Opens a connection, and closes it at the end whatever happens. */
export async function withClient<T>(url: string, run: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  // Told by the query that fails: an event that nobody listens to would end the process.
  client.on('error', () => undefined);
  await client.connect();
  try {
    for (const setting of TEXT_SETTINGS) await client.query(setting);
    return await run(client);
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** @returns false where another backup runs */
export async function takeBackupLock(client: pg.Client): Promise<boolean> {
  const { rows } = await client.query<{ taken: boolean }>('select pg_try_advisory_lock($1) as taken', [
    BACKUP_LOCK,
  ]);
  return rows[0]!.taken;
}

/** Whether a backup is being made, in whatever process. */
export const BACKUP_RUNS_SQL = `select not pg_try_advisory_xact_lock_shared(${BACKUP_LOCK}) as "isRunning"`;

/** Begins to see one moment. @returns the name by which another connection sees the same (pg_export_snapshot) */
export async function beginSnapshot(client: pg.Client): Promise<string> {
  await client.query('begin transaction isolation level repeatable read, read only');
  const { rows } = await client.query<{ name: string }>('select pg_export_snapshot() as name');
  return rows[0]!.name;
}

export async function migrationsIn(client: pg.Client): Promise<string[]> {
  const there = await client.query<{ name: string | null }>("select to_regclass('migrations') as name");
  if (there.rows[0]!.name === null) return [];
  const { rows } = await client.query<{ name: string }>('select name from migrations order by name');
  return rows.map(({ name }) => name);
}

export async function postgresVersion(client: pg.Client): Promise<number> {
  const { rows } = await client.query<{ version: string }>(
    "select current_setting('server_version_num') as version",
  );
  return Number(rows[0]!.version);
}

/** Tables of the records; parts of a table count with their whole. */
export async function tablesIn(client: pg.Client): Promise<string[]> {
  const { rows } = await client.query<{ name: string }>(
    `select relname as name from pg_class
      where relnamespace = 'public'::regnamespace and relkind in ('r', 'p') and not relispartition
      order by relname`,
  );
  return rows.map(({ name }) => name);
}

/** What each table holds, but for those whose rows are left out. */
export async function tableSummaries(client: pg.Client): Promise<Record<string, TableSummary>> {
  const left: ReadonlySet<string> = new Set(WITHOUT_ROWS);
  const summaries: Record<string, TableSummary> = {};
  for (const table of await tablesIn(client)) {
    if (left.has(table)) continue;
    const { rows } = await client.query<{ rows: string; digest: string }>(
      `select count(*) as rows,
              coalesce(sum(('x' || left(md5(t::text), 16))::bit(64)::bigint::numeric), 0)::text as digest
         from ${client.escapeIdentifier(table)} t`,
    );
    summaries[table] = { rows: Number(rows[0]!.rows), digest: rows[0]!.digest };
  }
  return summaries;
}

export async function namedFiles(client: pg.Client): Promise<StoredFile[]> {
  const { rows } = await client.query<StoredFile>(`select distinct folder, name from (${NAMED_SQL}) named`);
  return rows;
}

/** Whether anybody has an account. @returns false where there are no tables yet */
export async function hasAccounts(client: pg.Client): Promise<boolean> {
  const there = await client.query<{ name: string | null }>("select to_regclass('accounts') as name");
  if (there.rows[0]!.name === null) return false;
  const { rows } = await client.query<{ some: boolean }>('select exists (select from accounts) as some');
  return rows[0]!.some;
}

/** Removes all that is in a database nobody has an account in. */
export async function emptyDatabase(client: pg.Client): Promise<void> {
  await client.query('drop schema if exists jobs cascade');
  const tables = await tablesIn(client);
  if (tables.length > 0)
    await client.query(
      `drop table ${tables.map((table) => client.escapeIdentifier(table)).join(', ')} cascade`,
    );
  const { rows } = await client.query<{ name: string }>(
    `select p.oid::regprocedure::text as name from pg_proc p where p.pronamespace = 'public'::regnamespace
       and not exists (select from pg_depend d where d.objid = p.oid and d.deptype = 'e')`,
  );
  for (const { name } of rows) await client.query(`drop function ${name} cascade`);
}
