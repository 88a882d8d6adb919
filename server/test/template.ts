import { createHash } from 'node:crypto';
import pg from 'pg';
import { APPLICATION_ROLE, startPostgres } from '../../scripts/postgres.mjs';
import { connect } from '../src/db/connection.ts';
import { migrate, MIGRATIONS } from '../src/db/migrate.ts';

/** Runs SQL on a server's maintenance database. */
export async function administer(url: string, ...statements: string[]): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    for (const statement of statements) await client.query(statement);
  } finally {
    await client.end();
  }
}

export function databaseUrl(serverUrl: string, database: string): string {
  const url = new URL(serverUrl);
  url.pathname = `/${database}`;
  return url.href;
}

/**
 * Starts a cluster in which the application's role may make databases. Superusers would not be bound by the tables' policies.
 *
 * @returns its address for the administrator, and for the application
 */
export async function startServer(kind: 'tests' | 'bench'): Promise<{ admin: string; serverUrl: string }> {
  const cluster = await startPostgres(kind, () => undefined);
  const admin = cluster.url('postgres');
  const rights = `login nosuperuser createdb password '${cluster.applicationPassword}'`;
  await administer(
    admin,
    // One after another: several runs may begin at once.
    'begin; select pg_advisory_xact_lock(41)',
    `do $$ begin
       if exists (select from pg_roles where rolname = '${APPLICATION_ROLE}') then alter role ${APPLICATION_ROLE} ${rights};
       else create role ${APPLICATION_ROLE} ${rights};
       end if;
     end $$`,
    'commit',
  );
  return { admin, serverUrl: cluster.applicationUrl('postgres') };
}

/** Makes, once per state of the migrations, a migrated database that tests are copied from. */
export async function prepareTemplate(): Promise<{ serverUrl: string; template: string }> {
  const { admin, serverUrl } = await startServer('tests');
  const hash = createHash('sha256').update(JSON.stringify(MIGRATIONS)).digest('hex').slice(0, 12);
  const template = `template_${hash}`;
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  try {
    await client.query('select pg_advisory_lock(42)');
    const { rowCount } = await client.query(
      'select 1 from pg_database where datname = $1 and datistemplate',
      [template],
    );
    if (rowCount === 0) {
      await client.query(`drop database if exists ${template}`);
      await client.query(`create database ${template} owner ${APPLICATION_ROLE}`);
      const sequelize = connect(databaseUrl(serverUrl, template));
      await migrate(sequelize);
      await sequelize.close();
      await client.query(`alter database ${template} with is_template true allow_connections false`);
    }
  } finally {
    await client.end();
  }
  return { serverUrl, template };
}
