import type { Migration } from '../migration.ts';

/* What programs sign in with, on behalf of a person in one collection. Nothing secret of a token is kept. */
export const accessTokens: Migration = {
  name: '20261130190000-access-tokens',
  up: `
    create table access_tokens (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid not null,
      account_id uuid not null references accounts (id) on delete cascade,
      name text not null check (length(name) between 1 and 80),
      scope text not null check (scope in ('view', 'record')),
      created_at timestamptz not null default now(),
      expires_at timestamptz not null,
      used_at timestamptz,
      revoked_at timestamptz,
      primary key (collection_id, id)
    );
    create unique index access_tokens_id on access_tokens (id);
    create index access_tokens_account on access_tokens (account_id);
  `,
  down: 'drop table access_tokens;',
};
