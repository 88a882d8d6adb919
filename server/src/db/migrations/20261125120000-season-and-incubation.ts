import type { Migration } from '../migration.ts';

/* What happens between the first introduction and the hatchling. Events are like records: never changed, but voided and put
   anew. */
export const seasonAndIncubation: Migration = {
  name: '20261125120000-season-and-incubation',
  up: `
    alter table collections add column season_rules jsonb not null default '{}' check (jsonb_typeof(season_rules) = 'object');

    alter table pairing_sires add column stored boolean not null default false;

    create table pairing_events (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      pairing_id uuid not null,
      kind text not null check (kind in ('introduction', 'lock', 'separation', 'ovulation', 'pre-lay-shed')),
      on_day date not null check (on_day >= '1950-01-01'),
      sire_id uuid,
      note text check (length(note) <= 500),
      author_id uuid not null references accounts (id),
      recorded_at timestamptz not null default clock_timestamp(),
      voided_at timestamptz,
      voided_by uuid references accounts (id),
      void_reason text,
      replaced_by uuid references pairing_events (id) deferrable initially deferred,
      foreign key (collection_id, pairing_id) references pairings (collection_id, id) on delete cascade,
      foreign key (collection_id, sire_id) references animals (collection_id, id),
      check (kind in ('ovulation', 'pre-lay-shed') or sire_id is not null),
      check ((voided_at is null) = (voided_by is null) and (voided_at is null) = (void_reason is null)),
      check (replaced_by is null or voided_at is not null)
    );
    create index pairing_events_pairing on pairing_events (collection_id, pairing_id, on_day) where voided_at is null;

    create table incubators (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      name text not null check (length(name) between 1 and 60),
      set_c double precision not null check (set_c between 20 and 40),
      low_c double precision not null,
      high_c double precision not null check (high_c > low_c),
      low_humidity double precision check (low_humidity between 1 and 100),
      silent_after_hours double precision check (silent_after_hours > 0),
      sensor text not null default 'none' check (sensor in ('none', 'simulated', 'simulated-failing')),
      sensor_since timestamptz not null default now(),
      version integer not null default 1,
      unique (collection_id, id),
      unique (collection_id, name)
    );

    create table readings (
      collection_id uuid not null,
      incubator_id uuid not null,
      at timestamptz not null,
      source text not null check (source in ('hand', 'logger', 'simulated')),
      celsius double precision not null check (celsius between -10 and 60),
      humidity double precision check (humidity between 0 and 100),
      primary key (collection_id, incubator_id, at, source),
      foreign key (collection_id, incubator_id) references incubators (collection_id, id) on delete cascade
    );

    alter table clutches add column incubator_id uuid;
    alter table clutches add constraint clutches_incubator_fk
      foreign key (collection_id, incubator_id) references incubators (collection_id, id);

    create table eggs (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      clutch_id uuid not null,
      position integer not null check (position between 1 and 30),
      verdict text not null check (verdict in ('good', 'doubtful', 'slug')),
      mass_g double precision check (mass_g between 5 and 300),
      stuck integer check (stuck between 1 and 15),
      marked boolean not null default false,
      x double precision not null check (x between 0 and 100),
      y double precision not null check (y between 0 and 100),
      unique (collection_id, id),
      foreign key (collection_id, clutch_id) references clutches (collection_id, id) on delete cascade,
      constraint eggs_position unique (collection_id, clutch_id, position) deferrable initially deferred
    );

    create table egg_events (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      clutch_id uuid not null,
      egg_id uuid,
      kind text not null check (kind in ('check', 'removed', 'pip', 'cut', 'out', 'died')),
      on_day date not null check (on_day >= '1950-01-01'),
      signs jsonb not null default '[]' check (jsonb_typeof(signs) = 'array'),
      young integer not null default 1 check (young between 1 and 2),
      note text check (length(note) <= 500),
      author_id uuid not null references accounts (id),
      recorded_at timestamptz not null default clock_timestamp(),
      voided_at timestamptz,
      voided_by uuid references accounts (id),
      void_reason text,
      foreign key (collection_id, clutch_id) references clutches (collection_id, id) on delete cascade,
      foreign key (collection_id, egg_id) references eggs (collection_id, id) on delete cascade,
      check (egg_id is not null or kind = 'check'),
      check ((voided_at is null) = (voided_by is null) and (voided_at is null) = (void_reason is null))
    );
    create index egg_events_clutch on egg_events (collection_id, clutch_id, on_day) where voided_at is null;

    alter table animals add column egg_id uuid;
    alter table animals add constraint animals_egg_fk foreign key (collection_id, egg_id) references eggs (collection_id, id);

    create table clutch_cards (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      clutch_id uuid not null,
      file text not null,
      author_id uuid not null references accounts (id),
      made_at timestamptz not null default clock_timestamp(),
      foreign key (collection_id, clutch_id) references clutches (collection_id, id) on delete cascade
    );

    create table calendar_feeds (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      name text not null check (length(name) between 1 and 60),
      token text not null unique check (length(token) between 32 and 64),
      author_id uuid not null references accounts (id),
      created_at timestamptz not null default now(),
      revoked_at timestamptz
    );
  `,
  down: `
    drop table calendar_feeds;
    drop table clutch_cards;
    alter table animals drop constraint animals_egg_fk;
    alter table animals drop column egg_id;
    drop table egg_events;
    drop table eggs;
    alter table clutches drop constraint clutches_incubator_fk;
    alter table clutches drop column incubator_id;
    drop table readings;
    drop table incubators;
    drop table pairing_events;
    alter table pairing_sires drop column stored;
    alter table collections drop column season_rules;
  `,
};
