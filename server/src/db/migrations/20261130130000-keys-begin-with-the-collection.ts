import type { Migration } from '../migration.ts';

/*
 * Every key of a collection's rows begins with the collection, so that collections can be spread over several databases; and
 * tables whose rows others refer to keep one index where they had two. Found by an address alone, before the collection is
 * known, are slugs, tokens and identifiers of keys.
 */

/** Tables by what names a row within its collection. */
const KEYS: Readonly<Record<string, readonly string[]>> = {
  id: [
    'breeders',
    'calendar_feeds',
    'catalogue_entries',
    'clutch_cards',
    'clutches',
    'egg_events',
    'eggs',
    'hand_overs',
    'heat_zones',
    'incubators',
    'inquiries',
    'label_sheets',
    'ladders',
    'letters',
    'offers',
    'opinion_links',
    'opinions',
    'pairing_events',
    'pairings',
    'persons',
    'pictures',
    'publications',
    'racks',
    'records',
    'signing_keys',
    'simulated_mail',
    'stated_evidence',
    'statements',
    'status_events',
    'stock_entries',
    'surface_checks',
    'taken_statements',
    'tubs',
    'wish_offers',
    'wishes',
  ],
  animal_id: ['observations'],
  'animal_id, issue': ['printed_labels'],
  clutch_id: ['clutch_sortings'],
};

/** Gives a table another primary key; those who refer to it do so afterwards as before. */
const CHANGE_KEY = `
  create function pg_temp.change_key(name regclass, key text, also_unique text) returns void language plpgsql as $$
  declare
    one record;
    again text[] := '{}';
    statement text;
  begin
    for one in
      select conname, conrelid::regclass as name, pg_get_constraintdef(oid) as rule
        from pg_constraint where contype = 'f' and confrelid = name
    loop
      execute format('alter table %s drop constraint %I', one.name, one.conname);
      again := again || format('alter table %s add constraint %I %s', one.name, one.conname, one.rule);
    end loop;
    for one in
      select conname from pg_constraint
       where conrelid = name and (contype = 'p' or pg_get_constraintdef(oid) = format('UNIQUE (%s)', key))
    loop
      execute format('alter table %s drop constraint %I', name, one.conname);
    end loop;
    execute format('alter table %s add primary key (%s)', name, key);
    if also_unique is not null then
      execute format('alter table %s add unique (%s)', name, also_unique);
    end if;
    foreach statement in array again loop
      execute statement;
    end loop;
  end $$;`;

const changeAll = (keyOf: (columns: string) => string, alsoUnique: (columns: string) => string): string =>
  Object.entries(KEYS)
    .flatMap(([columns, names]) =>
      names.map(
        (name) => `select pg_temp.change_key('${name}', '${keyOf(columns)}', ${alsoUnique(columns)});`,
      ),
    )
    .join('\n');

/** References within a collection that named no collection. */
const REFERENCES = [
  ['opinions', 'link_id', 'opinion_links', 'on delete cascade'],
  ['printed_labels', 'sheet_id', 'label_sheets', 'on delete cascade'],
  ['pairing_events', 'replaced_by', 'pairing_events', 'deferrable initially deferred'],
  ['records', 'replaced_by', 'records', 'deferrable initially deferred'],
] as const;

const dropReferences = REFERENCES.map(
  ([table, column]) => `alter table ${table} drop constraint ${table}_${column}_fkey;`,
).join('\n');
const addReferences = (within: string): string =>
  REFERENCES.map(
    ([table, column, to, how]) =>
      `alter table ${table} add constraint ${table}_${column}_fkey
         foreign key (${within}${column}) references ${to} (${within}id) ${how};`,
  ).join('\n');

export const keysBeginWithTheCollection: Migration = {
  name: '20261130130000-keys-begin-with-the-collection',
  up: `
    ${CHANGE_KEY}
    ${dropReferences}
    ${changeAll(
      (columns) => `collection_id, ${columns}`,
      () => 'null',
    )}
    ${addReferences('collection_id, ')}
    alter table tubs drop constraint tubs_rack_id_level_slot_key;
    alter table tubs add constraint tubs_rack_id_level_slot_key unique (collection_id, rack_id, level, slot);
    drop function pg_temp.change_key;
  `,
  down: `
    ${CHANGE_KEY}
    ${dropReferences}
    ${changeAll(
      (columns) => columns,
      (columns) => `'collection_id, ${columns}'`,
    )}
    ${addReferences('')}
    alter table tubs drop constraint tubs_rack_id_level_slot_key;
    alter table tubs add constraint tubs_rack_id_level_slot_key unique (rack_id, level, slot);
    drop function pg_temp.change_key;
  `,
};
