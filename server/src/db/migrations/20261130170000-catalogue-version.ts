import type { Migration } from '../migration.ts';

/* Which version of the built-in catalogue a collection reads by, until its keeper has seen what an update changes. */
export const catalogueVersion: Migration = {
  name: '20261130170000-catalogue-version',
  up: `
    alter table collections add column catalogue_version text not null default '2026.3';
    alter table collections alter column catalogue_version drop default;
  `,
  down: 'alter table collections drop column catalogue_version;',
};
