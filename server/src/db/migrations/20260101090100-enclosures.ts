import type { Migration } from '../migration.ts';

export const enclosures: Migration = {
  name: '20260101090100-enclosures',
  up: `
    create table ladders (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      name text not null check (length(name) between 1 and 80),
      version integer not null default 1,
      unique (collection_id, id),
      unique (collection_id, name)
    );
    create table ladder_steps (
      collection_id uuid not null,
      ladder_id uuid not null,
      position integer not null check (position between 0 and 11),
      name text not null check (length(name) between 1 and 80),
      min_g double precision not null check (min_g >= 0),
      max_g double precision check (max_g > min_g),
      inside text not null default '',
      meals_before integer check (meals_before between 0 and 50),
      primary key (collection_id, ladder_id, position),
      foreign key (collection_id, ladder_id) references ladders (collection_id, id) on delete cascade
    );
    alter table collections
      add constraint collections_ladder foreign key (id, ladder_id) references ladders (collection_id, id);

    create table racks (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      room text not null check (length(room) between 1 and 60),
      name text not null check (length(name) between 1 and 60),
      levels integer not null check (levels between 1 and 20),
      tubs_per_level integer not null check (tubs_per_level between 1 and 20),
      ladder_id uuid not null,
      step_position integer not null,
      version integer not null default 1,
      unique (collection_id, id),
      unique (collection_id, room, name),
      foreign key (collection_id, ladder_id, step_position)
        references ladder_steps (collection_id, ladder_id, position) deferrable initially deferred
    );
    create table tubs (
      collection_id uuid not null,
      id uuid primary key,
      rack_id uuid not null,
      level integer not null check (level between 1 and 20),
      slot integer not null check (slot between 1 and 20),
      unique (collection_id, id),
      unique (rack_id, level, slot),
      foreign key (collection_id, rack_id) references racks (collection_id, id) on delete cascade
    );
  `,
  down: `
    drop table tubs;
    drop table racks;
    alter table collections drop constraint collections_ladder;
    drop table ladder_steps;
    drop table ladders;
  `,
};
