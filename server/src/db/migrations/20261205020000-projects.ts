import type { Migration } from '../migration.ts';

const NOT_IMPORTING = "when (current_setting('karyotome.importing', true) is distinct from 'on')";

/** Rows of one collection, of which the history tells. */
const ofCollection = (table: string, subject: string): string => `
    create trigger keep_history after insert or update or delete on ${table} for each row ${NOT_IMPORTING}
      execute function keep_history('${subject}', 'id collection_id version created_at recorded_at author_id', '');
    alter table ${table} enable row level security;
    alter table ${table} force row level security;
    create policy one_collection on ${table}
      using (coalesce(collection_id = (select collection_in_work()), true));`;

/* Projects: what is to be bred, with which animals, by which route, and the pairings that are planned for it. */
export const projects: Migration = {
  name: '20261205020000-projects',
  up: `
    create table projects (
      collection_id uuid not null references collections (id) on delete cascade deferrable,
      id uuid not null default gen_random_uuid(),
      name text not null check (name <> ''),
      targets jsonb not null check (jsonb_typeof(targets) = 'array'),
      note text,
      plan jsonb,
      started_on date not null,
      ended_on date,
      author_id uuid not null references accounts (id) deferrable,
      version integer not null default 1,
      primary key (collection_id, id),
      constraint projects_name_key unique (collection_id, name)
    );
    create table project_animals (
      collection_id uuid not null references collections (id) on delete cascade deferrable,
      id uuid not null default gen_random_uuid(),
      project_id uuid not null,
      animal_id uuid not null,
      reason text,
      step smallint check (step >= 0),
      added_on date not null,
      author_id uuid not null references accounts (id) deferrable,
      primary key (collection_id, id),
      unique (collection_id, project_id, animal_id),
      foreign key (collection_id, project_id) references projects (collection_id, id) on delete cascade deferrable,
      foreign key (collection_id, animal_id) references animals (collection_id, id) deferrable
    );
    create index project_animals_animal on project_animals (collection_id, animal_id);
    create table planned_pairings (
      collection_id uuid not null references collections (id) on delete cascade deferrable,
      id uuid not null default gen_random_uuid(),
      project_id uuid not null,
      season integer not null,
      dam_id uuid not null,
      sire_id uuid not null,
      author_id uuid not null references accounts (id) deferrable,
      primary key (collection_id, id),
      constraint planned_pairings_key unique (collection_id, project_id, season, dam_id, sire_id),
      foreign key (collection_id, project_id) references projects (collection_id, id) on delete cascade deferrable,
      foreign key (collection_id, dam_id) references animals (collection_id, id) deferrable,
      foreign key (collection_id, sire_id) references animals (collection_id, id) deferrable
    );
    create index planned_pairings_dam on planned_pairings (collection_id, dam_id);
    create index planned_pairings_sire on planned_pairings (collection_id, sire_id);
    ${ofCollection('projects', 'project')}
    ${ofCollection('project_animals', 'project-animal')}
    ${ofCollection('planned_pairings', 'planned-pairing')}
  `,
  down: 'drop table planned_pairings, project_animals, projects;',
};
