import type { Migration } from '../migration.ts';

/* Which build of the program computed what is stored of animals' states and claims: one row, for the whole database. */
export const computedBy: Migration = {
  name: '20261130110000-computed-by',
  up: `
    create table computed_by (
      is_only boolean primary key default true check (is_only),
      build text not null
    );
  `,
  down: `drop table computed_by;`,
};
