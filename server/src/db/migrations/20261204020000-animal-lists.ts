import type { Migration } from '../migration.ts';

/* Lists of animals that are kept under a name: the words by which they are found, not the animals. */
export const animalLists: Migration = {
  name: '20261204020000-animal-lists',
  up: `
    create table animal_lists (
      collection_id uuid not null references collections (id) on delete cascade deferrable,
      id uuid not null default gen_random_uuid(),
      name text not null check (name <> ''),
      words text not null check (words <> ''),
      author_id uuid not null references accounts (id) deferrable,
      version integer not null default 1,
      primary key (collection_id, id),
      constraint animal_lists_name_key unique (collection_id, name)
    );
    create trigger keep_history after insert or update or delete on animal_lists for each row
      when (current_setting('karyotome.importing', true) is distinct from 'on')
      execute function keep_history('animal-list', 'id collection_id version author_id', '');
    alter table animal_lists enable row level security;
    alter table animal_lists force row level security;
    create policy one_collection on animal_lists
      using (coalesce(collection_id = (select collection_in_work()), true));
  `,
  down: 'drop table animal_lists;',
};
