import type { Migration } from '../migration.ts';

const KINDS_BEFORE = `'weight', 'feeding', 'shed', 'sex', 'identification', 'move', 'plan', 'care', 'own-way', 'note'`;
const NEW_KINDS = `'health-check', 'vet-visit', 'treatment', 'dose', 'treatment-end', 'quarantine', 'post-mortem',
      'acquisition', 'loan', 'loan-end'`;

/*
 * Records of health, of where an animal comes from, and of breeding loans. Who is in quarantine has a round of its own, who is
 * lent to somebody else has none; where mites were seen is found for each Today.
 */
export const healthRecords: Migration = {
  name: '20261204010000-health-records',
  up: `
    alter table records drop constraint records_kind_check;
    alter table records add constraint records_kind_check check (kind in (${KINDS_BEFORE}, ${NEW_KINDS}));
    create index records_mites on records (collection_id, on_day)
      where kind = 'health-check' and voided_at is null and body -> 'signs' ? 'mites';
    alter table animal_states add column in_quarantine boolean, add column is_away boolean, add column is_health_case boolean;
    create index animal_states_health on animal_states (collection_id, day) where is_health_case;
    update animal_states set computed_for = 0;
  `,
  down: `
    alter table animal_states drop column in_quarantine, drop column is_away, drop column is_health_case;
    drop index records_mites;
    delete from records where kind in (${NEW_KINDS});
    alter table records drop constraint records_kind_check;
    alter table records add constraint records_kind_check check (kind in (${KINDS_BEFORE}));
    update animal_states set computed_for = 0;
  `,
};
