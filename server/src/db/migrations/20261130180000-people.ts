import type { Migration } from '../migration.ts';

/*
 * Invitations by a link of which nothing secret is kept: its code is made of the invitation's id and the server's own secret.
 * Sessions are found by their account.
 */
export const people: Migration = {
  name: '20261130180000-people',
  up: `
    alter table memberships add column since timestamptz not null default now();
    update memberships m set since = a.created_at from accounts a where a.id = m.account_id;

    create table invitations (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid not null,
      name text not null check (length(name) between 1 and 80),
      role text not null check (role in ('owner', 'keeper', 'viewer')),
      author_id uuid not null references accounts (id),
      created_at timestamptz not null default now(),
      expires_at timestamptz not null,
      taken_by uuid references accounts (id),
      taken_at timestamptz,
      withdrawn_at timestamptz,
      primary key (collection_id, id),
      constraint invitations_taken check ((taken_by is null) = (taken_at is null))
    );
    create unique index invitations_id on invitations (id);
    create index sessions_account on sessions ((sess ->> 'accountId'));
  `,
  down: `
    drop index sessions_account;
    drop table invitations;
    alter table memberships drop column since;
  `,
};
