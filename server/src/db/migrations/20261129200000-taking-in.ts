import type { Migration } from '../migration.ts';

/*
 * An animal keeps its id wherever it goes, so two collections may hold the same one: the key of animals is of both columns.
 * What other breeders' statements say is kept as evidence of its own beside the collection's records, and goes with the
 * statement that it stands in. An address of a hand-over opens a package once.
 */
export const takingIn: Migration = {
  name: '20261129200000-taking-in',
  up: `
    alter table animals drop constraint animals_pkey;
    alter table animals add primary key (collection_id, id);
    alter table animals drop constraint animals_status_check;
    alter table animals add constraint animals_status_check check (status in
      ('undecided', 'held-back', 'for-sale', 'reserved', 'sold', 'breeder', 'died', 'mistaken', 'outside'));

    alter table status_events drop constraint status_events_kind_check;
    alter table status_events add constraint status_events_kind_check check (kind in ('undecided', 'held-back', 'offered',
      'reserved', 'lapsed', 'sold', 'gone-back', 'withdrawn', 'breeder', 'died', 'mistaken', 'outside'));

    create table breeders (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      did text not null check (did like 'did:key:z6Mk%'),
      name text not null,
      trust text not null check (trust in ('certain', 'probable', 'possible', 'ignored')),
      version integer not null default 1,
      unique (collection_id, id),
      unique (collection_id, did)
    );

    create table taken_statements (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      breeder_id uuid not null,
      statement_id text not null,
      animal_id uuid not null,
      statement integer not null,
      as_of date not null,
      document text not null,
      author_id uuid not null references accounts (id),
      taken_at timestamptz not null default clock_timestamp(),
      removed_at timestamptz,
      unique (collection_id, id),
      foreign key (collection_id, breeder_id) references breeders (collection_id, id),
      foreign key (collection_id, animal_id) references animals (collection_id, id)
    );
    create unique index taken_statements_once on taken_statements (collection_id, statement_id) where removed_at is null;

    create table stated_evidence (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      taken_id uuid not null,
      animal_id uuid not null,
      body jsonb not null,
      foreign key (collection_id, taken_id) references taken_statements (collection_id, id),
      foreign key (collection_id, animal_id) references animals (collection_id, id)
    );
    create index stated_evidence_animal on stated_evidence (collection_id, animal_id);

    alter table records add column taken_id uuid;
    alter table records add foreign key (collection_id, taken_id) references taken_statements (collection_id, id);

    create table hand_overs (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid not null,
      token_digest text not null unique,
      author_id uuid not null references accounts (id),
      made_at timestamptz not null default clock_timestamp(),
      expires_on date not null,
      opened_at timestamptz,
      foreign key (collection_id, animal_id) references animals (collection_id, id)
    );
  `,
  down: `
    drop table hand_overs;
    alter table records drop column taken_id;
    drop table stated_evidence;
    drop table taken_statements;
    drop table breeders;
    update animals set status = 'mistaken' where status = 'outside';
    update status_events set kind = 'mistaken' where kind = 'outside';
    alter table status_events drop constraint status_events_kind_check;
    alter table status_events add constraint status_events_kind_check check (kind in ('undecided', 'held-back', 'offered',
      'reserved', 'lapsed', 'sold', 'gone-back', 'withdrawn', 'breeder', 'died', 'mistaken'));
    alter table animals drop constraint animals_status_check;
    alter table animals add constraint animals_status_check check (status in
      ('undecided', 'held-back', 'for-sale', 'reserved', 'sold', 'breeder', 'died', 'mistaken'));
    alter table animals drop constraint animals_pkey;
    alter table animals add primary key (id);
  `,
};
