import type { Migration } from '../migration.ts';

/*
 * A page shows what was signed: what it shows of that is kept with the statement, so that no visitor sets off an inference.
 * A collection's front page has a name of its own; what visitors ask lands in its inbox.
 */
export const publicPages: Migration = {
  name: '20261129180000-public-pages',
  up: `
    alter table statements add column shown jsonb;
    alter table collections add column page_name text unique
      check (page_name ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(page_name) between 3 and 60);
    update collections set page_name =
      coalesce(nullif(trim(both '-' from left(regexp_replace(lower(name), '[^a-z0-9]+', '-', 'g'), 40)), ''), 'collection')
        || '-' || left(id::text, 8);

    create table inquiries (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid,
      name text not null check (length(name) between 1 and 120),
      email text not null check (length(email) between 3 and 200),
      text text not null check (length(text) between 1 and 4000),
      asked_at timestamptz not null default clock_timestamp(),
      answered_at timestamptz,
      version integer not null default 1,
      unique (collection_id, id),
      foreign key (collection_id, animal_id) references animals (collection_id, id)
    );
    create index inquiries_newest on inquiries (collection_id, asked_at desc);
  `,
  down: `
    drop table inquiries;
    alter table collections drop column page_name;
    alter table statements drop column shown;
  `,
};
