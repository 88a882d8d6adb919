import type { Migration } from '../migration.ts';

export const accountsAndCollections: Migration = {
  name: '20260101090000-accounts-and-collections',
  up: `
    create table accounts (
      id uuid primary key,
      email text not null check (email = lower(email) and length(email) <= 200),
      name text not null check (length(name) between 1 and 80),
      password_hash text not null,
      created_at timestamptz not null default now()
    );
    create unique index accounts_email on accounts (email);

    create table collections (
      id uuid primary key,
      name text not null check (length(name) between 1 and 80),
      number_pattern text not null default 'season-clutch-hatchling'
        check (number_pattern in ('season-clutch-hatchling', 'running', 'free')),
      mass_unit text not null default 'g' check (mass_unit in ('g', 'oz')),
      temperature_unit text not null default 'C' check (temperature_unit in ('C', 'F')),
      ladder_id uuid,
      genetics_revision bigint not null default 0,
      version integer not null default 1,
      created_at timestamptz not null default now()
    );

    create table memberships (
      collection_id uuid not null references collections (id) on delete cascade,
      account_id uuid not null references accounts (id) on delete cascade,
      role text not null check (role in ('owner', 'keeper', 'viewer')),
      primary key (collection_id, account_id)
    );
    create index memberships_account on memberships (account_id);

    create table sessions (
      sid varchar primary key,
      sess json not null,
      expire timestamp(6) not null
    );
    create index sessions_expire on sessions (expire);

    create table idempotent_writes (
      collection_id uuid not null references collections (id) on delete cascade,
      key text not null check (length(key) between 8 and 200),
      fingerprint text not null,
      status integer,
      body jsonb,
      created_at timestamptz not null default now(),
      primary key (collection_id, key)
    );
    create index idempotent_writes_created on idempotent_writes (created_at);
  `,
  down: `
    drop table idempotent_writes;
    drop table sessions;
    drop table memberships;
    drop table collections;
    drop table accounts;
  `,
};
