import type { Migration } from '../migration.ts';

/* Signed statements are never changed, and outlive the page that they were published on. */
export const statements: Migration = {
  name: '20261129090000-statements',
  up: `
    create table signing_keys (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      did text not null unique check (did like 'did:key:z6Mk%'),
      sealed_secret text not null,
      created_at timestamptz not null default clock_timestamp()
    );
    create unique index signing_keys_one on signing_keys (collection_id);

    create table statements (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid not null,
      statement integer not null check (statement >= 1),
      as_of date not null,
      document text not null,
      author_id uuid not null references accounts (id),
      issued_at timestamptz not null default clock_timestamp(),
      unique (collection_id, animal_id, statement),
      foreign key (collection_id, animal_id) references animals (collection_id, id)
    );
  `,
  down: `
    drop table statements;
    drop table signing_keys;
  `,
};
