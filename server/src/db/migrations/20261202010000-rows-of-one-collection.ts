import type { Migration } from '../migration.ts';

/** Every table of rows that belong to a collection, with its partitions, and the collections themselves. */
const BOUND = `
  select c.oid::regclass::text as "table", case c.relname when 'collections' then 'id' else 'collection_id' end as "column"
    from pg_class c
   where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p')
     and (c.relname = 'collections' or exists (
           select from pg_attribute a where a.attrelid = c.oid and a.attname = 'collection_id' and not a.attisdropped))`;

const forEach = (statements: string): string => `
  do $$ declare one record; begin
    for one in ${BOUND} loop
      ${statements}
    end loop;
  end $$;`;

/*
 * Below the program's own binding: within a unit of work, which says its collection in `karyotome.collection`, the rows of every
 * other collection do not exist, so that a query without its condition answers nothing of them. Where nothing is said, as at a
 * sign-in, in a backup or in a migration, a query sees all of them. The owner of the tables is bound as well (force).
 *
 * The comparison stands in `coalesce`, whose share of rows the planner takes to be a half: as a bare comparison beside the
 * program's own it would take rows to be far fewer than they are.
 */
export const rowsOfOneCollection: Migration = {
  name: '20261202010000-rows-of-one-collection',
  up: `
    create function collection_in_work() returns uuid language sql stable parallel safe as $$
      select nullif(current_setting('karyotome.collection', true), '')::uuid
    $$;
    ${forEach(`
      execute format('alter table %s enable row level security', one.table);
      execute format('alter table %s force row level security', one.table);
      execute format('create policy one_collection on %s using (coalesce(%I = (select collection_in_work()), true))', one.table, one.column);`)}
  `,
  down: `
    ${forEach(`
      execute format('drop policy one_collection on %s', one.table);
      execute format('alter table %s no force row level security', one.table);
      execute format('alter table %s disable row level security', one.table);`)}
    drop function collection_in_work;
  `,
};
