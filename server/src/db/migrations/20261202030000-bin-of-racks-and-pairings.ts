import type { Migration } from '../migration.ts';

/* Pairings, racks and heat zones are kept for a while as well after they were removed, with all that belongs to them. */
export const binOfRacksAndPairings: Migration = {
  name: '20261202030000-bin-of-racks-and-pairings',
  up: `
    alter table bin drop constraint bin_kind_check,
      add constraint bin_kind_check check (kind in ('animal', 'picture', 'pairing', 'rack', 'heat-zone'));
  `,
  down: `
    delete from bin where kind in ('pairing', 'rack', 'heat-zone');
    alter table bin drop constraint bin_kind_check,
      add constraint bin_kind_check check (kind in ('animal', 'picture'));
  `,
};
