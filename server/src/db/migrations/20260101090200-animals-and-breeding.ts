import type { Migration } from '../migration.ts';

/* Foreign keys carry the collection's id, so that no row can ever point into another collection. */
export const animalsAndBreeding: Migration = {
  name: '20260101090200-animals-and-breeding',
  up: `
    create table used_numbers (
      collection_id uuid not null references collections (id) on delete cascade,
      number text not null check (length(number) between 1 and 40),
      primary key (collection_id, number)
    );

    create table animals (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      number text not null,
      name text check (length(name) <= 80),
      sex text not null check (sex in ('female', 'male', 'unknown')),
      hatched_on date,
      dam_id uuid,
      sire_id uuid,
      clutch_id uuid,
      tub_id uuid,
      status text not null default 'undecided' check (status in
        ('undecided', 'held-back', 'for-sale', 'reserved', 'sold', 'breeder', 'died')),
      note text check (length(note) <= 2000),
      version integer not null default 1,
      created_at timestamptz not null default now(),
      unique (collection_id, id),
      unique (collection_id, number),
      foreign key (collection_id, number) references used_numbers (collection_id, number),
      foreign key (collection_id, dam_id) references animals (collection_id, id),
      foreign key (collection_id, sire_id) references animals (collection_id, id),
      foreign key (collection_id, tub_id) references tubs (collection_id, id),
      check (dam_id <> id and sire_id <> id and dam_id <> sire_id),
      constraint animals_one_origin check (clutch_id is null or (dam_id is null and sire_id is null))
    );
    create index animals_dam on animals (collection_id, dam_id) where dam_id is not null;
    create index animals_sire on animals (collection_id, sire_id) where sire_id is not null;
    create index animals_clutch on animals (collection_id, clutch_id) where clutch_id is not null;
    create index animals_tub on animals (collection_id, tub_id) where tub_id is not null;

    create table pairings (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      season integer not null check (season between 1990 and 2100),
      dam_id uuid not null,
      started_on date not null,
      note text check (length(note) <= 2000),
      version integer not null default 1,
      unique (collection_id, id),
      foreign key (collection_id, dam_id) references animals (collection_id, id)
    );
    create index pairings_dam on pairings (collection_id, dam_id);

    create table pairing_sires (
      collection_id uuid not null,
      pairing_id uuid not null,
      sire_id uuid not null,
      weight double precision not null check (weight > 0),
      primary key (collection_id, pairing_id, sire_id),
      foreign key (collection_id, pairing_id) references pairings (collection_id, id) on delete cascade,
      foreign key (collection_id, sire_id) references animals (collection_id, id)
    );
    create index pairing_sires_sire on pairing_sires (collection_id, sire_id);

    create table clutches (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      pairing_id uuid not null,
      season integer not null check (season between 1990 and 2100),
      ordinal integer not null check (ordinal > 0),
      laid_on date not null,
      eggs integer not null check (eggs between 1 and 30),
      slugs integer check (slugs between 0 and eggs),
      incubation_c double precision check (incubation_c between 20 and 40),
      hatched_on date check (hatched_on >= laid_on),
      hatched integer check (hatched between 0 and 2 * eggs),
      note text check (length(note) <= 2000),
      version integer not null default 1,
      unique (collection_id, id),
      unique (collection_id, season, ordinal),
      foreign key (collection_id, pairing_id) references pairings (collection_id, id)
    );
    create index clutches_pairing on clutches (collection_id, pairing_id);
    alter table animals
      add constraint animals_clutch_fk foreign key (collection_id, clutch_id) references clutches (collection_id, id);
  `,
  down: `
    alter table animals drop constraint animals_clutch_fk;
    drop table clutches;
    drop table pairing_sires;
    drop table pairings;
    drop table animals;
    drop table used_numbers;
  `,
};
