import type { Migration } from '../migration.ts';

/* The field's own words: observations of trait markers, phenotypes, protocols. */
export const fieldWords: Migration = {
  name: '20261128150000-field-words',
  up: `
    alter table looks rename to observations;
    alter table observations rename column sightings to observations;

    alter table catalogue_entries drop constraint catalogue_entries_kind_check;
    update catalogue_entries
       set kind = 'marker',
           body = body - '{looks,kind}'::text[] || jsonb_build_object('kind', 'marker', 'phenotype', body -> 'looks')
     where kind = 'tell';
    alter table catalogue_entries add constraint catalogue_entries_kind_check
      check (kind in ('locus', 'allele', 'alias', 'correction', 'recombination', 'marker'));

    update records set body = body - 'tells' || jsonb_build_object('markers', body -> 'tells')
     where kind = 'identification' and body ? 'tells';
    update records set body = body - 'school' || jsonb_build_object('protocol', body -> 'school')
     where kind = 'plan' and body ? 'school';
  `,
  down: `
    update records set body = body - 'protocol' || jsonb_build_object('school', body -> 'protocol')
     where kind = 'plan' and body ? 'protocol';
    update records set body = body - 'markers' || jsonb_build_object('tells', body -> 'markers')
     where kind = 'identification' and body ? 'markers';

    alter table catalogue_entries drop constraint catalogue_entries_kind_check;
    update catalogue_entries
       set kind = 'tell',
           body = body - '{phenotype,kind}'::text[] || jsonb_build_object('kind', 'tell', 'looks', body -> 'phenotype')
     where kind = 'marker';
    alter table catalogue_entries add constraint catalogue_entries_kind_check
      check (kind in ('locus', 'allele', 'alias', 'correction', 'recombination', 'tell'));

    alter table observations rename column observations to sightings;
    alter table observations rename to looks;
  `,
};
