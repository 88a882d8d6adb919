import type { Migration } from '../migration.ts';

const ACTIONS = [
  'added',
  'changed',
  'removed',
  'signed-in',
  'signed-out',
  'sign-in-failed',
  'password-changed',
  'exported',
];
const MORE = [
  'second-factor-on',
  'second-factor-off',
  'recovery-code-used',
  'passkey-added',
  'passkey-removed',
];

const allow = (actions: readonly string[]): string => `
  alter table history drop constraint history_action_check;
  alter table history add constraint history_action_check check (action in (${actions.map((one) => `'${one}'`).join(', ')})) not valid;`;

/* What somebody signs in with besides a password: codes of an authenticator, and passkeys. They are an account's, not a collection's. */
export const secondFactors: Migration = {
  name: '20261130235000-second-factors',
  up: `
    create table second_factors (
      account_id uuid primary key references accounts (id) on delete cascade,
      sealed_secret text not null,
      confirmed_at timestamptz,
      last_step bigint not null default 0,
      recovery_set uuid not null,
      used_codes smallint[] not null default '{}'
    );
    create table passkeys (
      id uuid primary key,
      credential_id text not null unique,
      account_id uuid not null references accounts (id) on delete cascade,
      name text not null check (length(name) between 1 and 80),
      public_key bytea not null,
      counter bigint not null,
      transports text[] not null default '{}',
      created_at timestamptz not null default clock_timestamp(),
      used_at timestamptz
    );
    create index passkeys_account on passkeys (account_id);
    ${allow([...ACTIONS, ...MORE])}`,
  down: `
    ${allow(ACTIONS)}
    drop table passkeys;
    drop table second_factors;`,
};
