import type { Migration } from '../migration.ts';

/*
 * Tables that grow with every day's work are partitioned by collection: what is vacuumed, indexed and copied is a part of them,
 * and all of a collection's rows are in one. Each is made anew, with what stands on it.
 */

/** In this order: tasks refer to states. */
const TABLES = ['records', 'animal_states', 'due_tasks', 'readings', 'idempotent_writes'];
const PARTITIONS = 8;

const MAKE_ANEW = `
  create function pg_temp.make_anew(name text, partitions integer) returns void language plpgsql as $$
  declare
    before text := name || '_before';
    again text[];
    statement text;
  begin
    select array_agg(rule order by rank) into again from (
      select 1 as rank, format('alter table %s add constraint %I %s', conrelid::regclass, conname, pg_get_constraintdef(oid)) as rule
        from pg_constraint where conrelid = name::regclass and contype in ('p', 'u') and conparentid = 0
      union all
      select 2, replace(pg_get_indexdef(indexrelid), ' ON ONLY ', ' ON ') from pg_index i
       where indrelid = name::regclass and not exists (select from pg_constraint where conindid = i.indexrelid)
      union all
      select 3, format('alter table %s add constraint %I %s', conrelid::regclass, conname, pg_get_constraintdef(oid))
        from pg_constraint
       where contype = 'f' and conparentid = 0 and (conrelid = name::regclass or confrelid = name::regclass)
      union all
      select 4, pg_get_triggerdef(oid) from pg_trigger where tgrelid = name::regclass and not tgisinternal
    ) stands;
    execute format('alter table %I rename to %I', name, before);
    execute format('create table %I (like %I including defaults including constraints) %s', name, before,
      case when partitions > 0 then 'partition by hash (collection_id)' else '' end);
    for i in 0 .. partitions - 1 loop
      execute format('create table %I partition of %I for values with (modulus %s, remainder %s)', name || '_' || i, name,
        partitions, i);
    end loop;
    execute format('insert into %I select * from %I', name, before);
    execute format('drop table %I cascade', before);
    foreach statement in array again loop
      execute statement;
    end loop;
    execute format('analyze %I', name);
  end $$;`;

export const partitions: Migration = {
  name: '20261130140000-partitions',
  up: `
    ${MAKE_ANEW}
    ${TABLES.map((name) => `select pg_temp.make_anew('${name}', ${PARTITIONS});`).join('\n')}
    drop function pg_temp.make_anew;
  `,
  down: `
    ${MAKE_ANEW}
    ${TABLES.map((name) => `select pg_temp.make_anew('${name}', 0);`).join('\n')}
    drop function pg_temp.make_anew;
  `,
};
