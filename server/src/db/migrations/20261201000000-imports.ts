import type { Migration } from '../migration.ts';

/** Each key of a table of this application, but not those of its parts, and not the one that was deferred from the beginning. */
const eachKey = (isDeferrable: boolean, change: string): string => `
  do $$
  declare one record;
  begin
    for one in select conrelid::regclass as holder, conname from pg_constraint
                where contype = 'f' and connamespace = 'public'::regnamespace and conparentid = 0
                  and condeferrable = ${isDeferrable} and not condeferred
    loop
      execute format('alter table %s alter constraint %I ${change}', one.holder, one.conname);
    end loop;
  end $$;`;

const IMPORTING = `current_setting(''karyotome.importing'', true) is distinct from ''on''`;

/** Makes each trigger that keeps the history anew. @param sql - of its definition, \`def\` */
const eachTrigger = (sql: string): string => `
  do $$
  declare one record;
  begin
    for one in select tgrelid::regclass as holder, pg_get_triggerdef(oid) as def from pg_trigger
                where tgname = 'keep_history' and tgparentid = 0
    loop
      execute format('drop trigger keep_history on %s', one.holder);
      execute ${sql};
    end loop;
  end $$;`;

/*
 * A whole collection comes in at once: its rows refer to one another in circles, so that keys are held against them at the end;
 * and it brings its history along, instead of adding one of a moment.
 */
export const imports: Migration = {
  name: '20261201000000-imports',
  up: `
    ${eachKey(false, 'deferrable initially immediate')}
    ${eachTrigger(`replace(one.def, ' EXECUTE FUNCTION', ' WHEN (${IMPORTING}) EXECUTE FUNCTION')`)}`,
  down: `
    ${eachTrigger(`regexp_replace(one.def, ' WHEN .* EXECUTE FUNCTION', ' EXECUTE FUNCTION')`)}
    ${eachKey(true, 'not deferrable')}`,
};
