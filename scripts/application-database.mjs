import { APPLICATION_ROLE } from './postgres.mjs';

/**
 * The application's own role, which is no superuser, and its database, which it owns with all that is in it.
 *
 * @param cluster - where an administrator and the application sign in
 * @returns the database's address for the application
 */
export async function ensureDatabase(cluster, database) {
  const { default: pg } = await import('pg');
  const within = async (url, run) => {
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    try {
      return await run(client);
    } finally {
      await client.end();
    }
  };
  await within(cluster.url('postgres'), async (client) => {
    const role = await client.query('select 1 from pg_roles where rolname = $1', [APPLICATION_ROLE]);
    const verb = role.rowCount === 0 ? 'create' : 'alter';
    const password = client.escapeLiteral(cluster.applicationPassword);
    await client.query(
      `${verb} role ${APPLICATION_ROLE} login nosuperuser nocreatedb nocreaterole noreplication password ${password}`,
    );
    const known = await client.query('select 1 from pg_database where datname = $1', [database]);
    if (known.rowCount === 0) await client.query(`create database ${database} owner ${APPLICATION_ROLE}`);
    else await client.query(`alter database ${database} owner to ${APPLICATION_ROLE}`);
  });
  // Of an earlier version, in which the administrator owned them.
  await within(cluster.url(database), (client) =>
    client.query(`do $$ declare one record; begin
      for one in select c.oid::regclass as name from pg_class c
                  where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'S', 'v')
                    and pg_get_userbyid(c.relowner) <> '${APPLICATION_ROLE}'
                    and not exists (select 1 from pg_depend d where d.objid = c.oid and d.deptype in ('a', 'i')) loop
        execute format('alter table %s owner to ${APPLICATION_ROLE}', one.name);
      end loop;
      for one in select p.oid::regprocedure as name from pg_proc p
                  where p.pronamespace = 'public'::regnamespace
                    and pg_get_userbyid(p.proowner) <> '${APPLICATION_ROLE}' loop
        execute format('alter function %s owner to ${APPLICATION_ROLE}', one.name);
      end loop;
    end $$`),
  );
  return cluster.applicationUrl(database);
}
