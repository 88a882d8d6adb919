import type { Migration } from '../migration.ts';

/* Which backups of the whole database were made, and which could not be. They are nobody's collection. */
export const backups: Migration = {
  name: '20261130200000-backups',
  up: `
    create table backups (
      id bigint generated always as identity primary key,
      kind text not null check (kind in ('regular', 'before-migration')),
      ended_at timestamptz not null default now(),
      folder text not null,
      file text,
      made_at timestamptz,
      bytes bigint,
      rows bigint,
      files integer,
      missing integer,
      fault text,
      check ((fault is null) = (file is not null and made_at is not null and bytes is not null))
    );
  `,
  down: 'drop table backups;',
};
