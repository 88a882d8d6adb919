import type { Migration } from '../migration.ts';

const HISTORY = (table: string, subject: string, leftOut: string): string => `
    create trigger keep_history after insert or update or delete on ${table} for each row
      when (current_setting('karyotome.importing', true) is distinct from 'on')
      execute function keep_history('${subject}', 'id collection_id version created_at recorded_at author_id ${leftOut}', '');`;

/*
 * A file that is brought in is kept with how it is to be read until it was taken or discarded; then what it made, so that all
 * of it can be taken back. What its words mean is remembered for the next file.
 */
export const importsOfFiles: Migration = {
  name: '20261201020000-imports-of-files',
  up: `
    create table imports (
      collection_id uuid not null references collections (id) deferrable,
      id uuid not null,
      file_name text not null,
      author_id uuid not null references accounts (id) deferrable,
      created_at timestamptz not null default now(),
      state text not null default 'draft' check (state in ('draft', 'done', 'undone')),
      bytes bytea,
      plan jsonb not null,
      row_count integer,
      made jsonb,
      primary key (collection_id, id),
      check ((state = 'draft') = (bytes is not null)),
      check ((state = 'done') = (made is not null))
    );
    create table import_words (
      collection_id uuid not null references collections (id) deferrable,
      field text not null,
      word text not null,
      value text,
      primary key (collection_id, field, word)
    );
    -- What is deleted in numbers is looked for in each of these.
    create index records_replaced_by on records (collection_id, replaced_by) where replaced_by is not null;
    create index records_taken on records (collection_id, taken_id) where taken_id is not null;
    create index animals_egg on animals (collection_id, egg_id) where egg_id is not null;
    create index letters_animal on letters (collection_id, animal_id) where animal_id is not null;
    create index inquiries_animal on inquiries (collection_id, animal_id) where animal_id is not null;
    create index pairing_events_sire on pairing_events (collection_id, sire_id) where sire_id is not null;
    ${HISTORY('imports', 'import', 'bytes plan made')}
    ${HISTORY('import_words', 'import-word', '')}
  `,
  down: `
    drop index records_replaced_by, records_taken, animals_egg, letters_animal, inquiries_animal, pairing_events_sire;
    drop table import_words;
    drop table imports;
  `,
};
