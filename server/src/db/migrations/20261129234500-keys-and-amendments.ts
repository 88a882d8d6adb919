import type { Migration } from '../migration.ts';

/*
 * A collection's key may be followed by another one, which the old one introduces. A change that the breeder does not publish
 * has a reason, which stands as long as it is that change.
 */
export const keysAndAmendments: Migration = {
  name: '20261129234500-keys-and-amendments',
  up: `
    drop index signing_keys_one;
    alter table signing_keys add column replaced_at timestamptz, add column succession text;
    create unique index signing_keys_current on signing_keys (collection_id) where replaced_at is null;
    alter table publications add column withheld_reason text check (length(withheld_reason) <= 500),
      add column withheld_changes jsonb;
  `,
  down: `
    alter table publications drop column withheld_reason, drop column withheld_changes;
    drop index signing_keys_current;
    delete from signing_keys where replaced_at is not null;
    alter table signing_keys drop column replaced_at, drop column succession;
    create unique index signing_keys_one on signing_keys (collection_id);
  `,
};
