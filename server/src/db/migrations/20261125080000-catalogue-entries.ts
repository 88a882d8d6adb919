import type { Migration } from '../migration.ts';

/* What a collection adds to the built-in catalogue of genes, or corrects in it. Entries are never changed in place without
   their version: two people at once cannot undo one another. */
export const catalogueEntries: Migration = {
  name: '20261125080000-catalogue-entries',
  up: `
    create table catalogue_entries (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      kind text not null check (kind in ('locus', 'allele', 'alias', 'correction', 'recombination')),
      -- What it is known by: an allele's id, an alias' folded words, or the locus it corrects.
      key text not null check (length(key) between 1 and 80),
      body jsonb not null check (jsonb_typeof(body) = 'object'),
      author_id uuid not null references accounts (id),
      created_at timestamptz not null default clock_timestamp(),
      version integer not null default 1,
      unique (collection_id, kind, key)
    );
  `,
  down: `
    drop table catalogue_entries;
  `,
};
