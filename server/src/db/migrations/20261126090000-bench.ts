import type { Migration } from '../migration.ts';

/* The bench: what was seen of each hatchling, how a clutch was sorted, what others say, labels as they were printed, pictures
   of a clutch's card, and pictures with their original and thumbnail. */
export const bench: Migration = {
  name: '20261126090000-bench',
  up: `
    create table looks (
      collection_id uuid not null references collections (id) on delete cascade,
      animal_id uuid primary key,
      sightings jsonb not null check (jsonb_typeof(sightings) = 'object'),
      author_id uuid not null references accounts (id),
      seen_at timestamptz not null default clock_timestamp(),
      version integer not null default 1,
      foreign key (collection_id, animal_id) references animals (collection_id, id) on delete cascade
    );

    create table clutch_sortings (
      collection_id uuid not null references collections (id) on delete cascade,
      clutch_id uuid primary key,
      groups jsonb not null check (jsonb_typeof(groups) = 'array'),
      version integer not null default 1,
      foreign key (collection_id, clutch_id) references clutches (collection_id, id) on delete cascade
    );

    create table opinion_links (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      clutch_id uuid not null,
      token text not null unique check (length(token) between 24 and 64),
      animal_ids jsonb not null check (jsonb_typeof(animal_ids) = 'array'),
      note text check (length(note) <= 500),
      author_id uuid not null references accounts (id),
      created_at timestamptz not null default clock_timestamp(),
      expires_on date not null,
      -- Good for one answer; revoked by whoever sent it.
      used_at timestamptz,
      -- The key of the request that used it: sent again after a lost answer, it has been answered.
      answer_key text check (length(answer_key) <= 200),
      revoked_at timestamptz,
      foreign key (collection_id, clutch_id) references clutches (collection_id, id) on delete cascade
    );

    create table opinions (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      animal_id uuid not null,
      by_name text not null check (length(by_name) between 1 and 80),
      genes text not null check (length(genes) between 1 and 300),
      sure text not null check (sure in ('certain', 'probable', 'possible')),
      note text check (length(note) <= 1000),
      on_day date not null,
      link_id uuid references opinion_links (id) on delete cascade,
      author_id uuid references accounts (id),
      created_at timestamptz not null default clock_timestamp(),
      foreign key (collection_id, animal_id) references animals (collection_id, id) on delete cascade,
      check (num_nonnulls(link_id, author_id) = 1)
    );
    create index opinions_animal on opinions (collection_id, animal_id);

    create table label_sheets (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      file text not null,
      author_id uuid not null references accounts (id),
      made_at timestamptz not null default clock_timestamp()
    );
    create table printed_labels (
      collection_id uuid not null references collections (id) on delete cascade,
      animal_id uuid not null,
      -- Counts up from 1: the label carries it, so that an old one is known when it is scanned.
      issue integer not null check (issue > 0),
      sheet_id uuid not null references label_sheets (id) on delete cascade,
      kind text not null check (kind in ('numbers', 'full')),
      content text not null,
      printed_at timestamptz not null default clock_timestamp(),
      primary key (animal_id, issue),
      foreign key (collection_id, animal_id) references animals (collection_id, id) on delete cascade
    );

    alter table pictures alter column animal_id drop not null;
    alter table pictures add column clutch_id uuid;
    alter table pictures add column original_file text;
    alter table pictures add column thumb_file text;
    alter table pictures add foreign key (collection_id, clutch_id) references clutches (collection_id, id) on delete cascade;
    alter table pictures add constraint pictures_of_one check (num_nonnulls(animal_id, clutch_id) = 1);
    create index pictures_clutch on pictures (collection_id, clutch_id) where clutch_id is not null;

    alter table catalogue_entries drop constraint catalogue_entries_kind_check;
    alter table catalogue_entries add constraint catalogue_entries_kind_check
      check (kind in ('locus', 'allele', 'alias', 'correction', 'recombination', 'tell'));
    alter table catalogue_entries drop constraint catalogue_entries_key_check;
    alter table catalogue_entries add constraint catalogue_entries_key_check check (length(key) between 1 and 240);
    alter table records drop constraint records_kind_check;
    alter table records add constraint records_kind_check check (kind in
      ('weight', 'feeding', 'shed', 'sex', 'identification', 'move', 'plan', 'note'));
  `,
  down: `
    delete from records where kind = 'plan';
    alter table records drop constraint records_kind_check;
    alter table records add constraint records_kind_check check (kind in
      ('weight', 'feeding', 'shed', 'sex', 'identification', 'move', 'note'));
    delete from catalogue_entries where kind = 'tell';
    alter table catalogue_entries drop constraint catalogue_entries_key_check;
    alter table catalogue_entries add constraint catalogue_entries_key_check check (length(key) between 1 and 80);
    alter table catalogue_entries drop constraint catalogue_entries_kind_check;
    alter table catalogue_entries add constraint catalogue_entries_kind_check
      check (kind in ('locus', 'allele', 'alias', 'correction', 'recombination'));
    delete from pictures where animal_id is null;
    alter table pictures drop constraint pictures_of_one;
    alter table pictures drop column clutch_id;
    alter table pictures drop column original_file;
    alter table pictures drop column thumb_file;
    alter table pictures alter column animal_id set not null;
    drop table printed_labels;
    drop table label_sheets;
    drop table opinions;
    drop table opinion_links;
    drop table clutch_sortings;
    drop table looks;
  `,
};
