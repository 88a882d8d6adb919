import type { Migration } from '../migration.ts';

/* What a collection may correct in its catalogue has grown: compounds, viability, allelism, frequencies, order of labels. */
export const catalogueKinds: Migration = {
  name: '20261130160000-catalogue-kinds',
  up: `
    alter table catalogue_entries drop constraint catalogue_entries_kind_check;
    alter table catalogue_entries add constraint catalogue_entries_kind_check check (kind in (
      'locus', 'allele', 'alias', 'correction', 'recombination', 'marker',
      'compound', 'viability', 'allelism', 'frequency', 'label-order'));
  `,
  down: `
    delete from catalogue_entries where kind in ('compound', 'viability', 'allelism', 'frequency', 'label-order');
    alter table catalogue_entries drop constraint catalogue_entries_kind_check;
    alter table catalogue_entries add constraint catalogue_entries_kind_check check (kind in (
      'locus', 'allele', 'alias', 'correction', 'recombination', 'marker'));
  `,
};
