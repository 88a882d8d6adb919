import type { Migration } from '../migration.ts';

/*
 * What was deleted is kept aside for a while, whole: its rows leave their tables, so that no query can find them by oversight.
 * What people wrote to and from outside stays, and loses its animal.
 */
const LETTERS = ['letters', 'inquiries'] as const;

const setNull = (table: string, action: string): string => `
    alter table ${table} drop constraint ${table}_collection_id_animal_id_fkey;
    alter table ${table} add constraint ${table}_collection_id_animal_id_fkey foreign key (collection_id, animal_id)
      references animals (collection_id, id) ${action} deferrable;`;

export const bin: Migration = {
  name: '20261201010000-bin',
  up: `
    create table bin (
      collection_id uuid not null references collections (id) deferrable,
      id uuid not null,
      kind text not null check (kind in ('animal', 'picture')),
      animal_id uuid,
      number text not null,
      name text,
      reason text,
      author_id uuid not null references accounts (id) deferrable,
      deleted_at timestamptz not null default now(),
      state text not null default 'kept' check (state in ('kept', 'restored', 'erased')),
      content jsonb,
      primary key (collection_id, id),
      check ((state = 'kept') = (content is not null))
    );
    create index bin_kept on bin (deleted_at) where state = 'kept';
    create index bin_animal on bin (collection_id, animal_id);
    create trigger keep_history after insert or update or delete on bin for each row
      when (current_setting('karyotome.importing', true) is distinct from 'on')
      execute function keep_history('bin-entry', 'id collection_id version created_at recorded_at author_id content deleted_at', '');
    ${LETTERS.map((table) => setNull(table, 'on delete set null (animal_id)')).join('')}
  `,
  down: `
    ${LETTERS.map((table) => setNull(table, '')).join('')}
    drop table bin;
  `,
};
