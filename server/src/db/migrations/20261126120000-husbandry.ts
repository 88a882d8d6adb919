import type { Migration } from '../migration.ts';

/* Daily work: what is done at a tub, rules and plans of feeding, the freezer, heat, what is supposed of the room; and a count
   of changes for each animal, by which what was computed of it is known to be still true. */
export const husbandry: Migration = {
  name: '20261126120000-husbandry',
  up: `
    alter table records drop constraint records_kind_check;
    alter table records add constraint records_kind_check check (kind in
      ('weight', 'feeding', 'shed', 'sex', 'identification', 'move', 'plan', 'care', 'own-way', 'note'));

    alter table animals add column records_revision bigint not null default 0;
    create function count_record_changes() returns trigger language plpgsql as $$
      begin
        update animals a set records_revision = a.records_revision + 1
          from (select distinct collection_id, animal_id from changed) c
         where a.collection_id = c.collection_id and a.id = c.animal_id;
        return null;
      end $$;
    create trigger records_added after insert on records
      referencing new table as changed for each statement execute function count_record_changes();
    create trigger records_changed after update on records
      referencing new table as changed for each statement execute function count_record_changes();

    alter table collections add column feeding_rules jsonb not null default '{}';
    alter table collections add column order_rules jsonb not null default '{}';
    alter table collections add column room_assumptions jsonb not null default '{}';

    create table feeding_plans (
      collection_id uuid not null references collections (id) on delete cascade,
      key text not null check (key ~ '^[a-z0-9][a-z0-9-]{0,39}$'),
      body jsonb not null check (jsonb_typeof(body) = 'object'),
      author_id uuid not null references accounts (id),
      version integer not null default 1,
      primary key (collection_id, key)
    );

    create table stock_entries (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      prey text not null check (length(prey) between 3 and 40),
      kind text not null check (kind in ('receipt', 'count', 'loss')),
      quantity integer not null check (quantity between 0 and 100000),
      on_day date not null,
      note text check (length(note) <= 300),
      author_id uuid not null references accounts (id),
      recorded_at timestamptz not null default clock_timestamp(),
      voided_at timestamptz,
      voided_by uuid references accounts (id),
      void_reason text,
      check ((voided_at is null) = (voided_by is null) and (voided_at is null) = (void_reason is null))
    );
    create index stock_entries_day on stock_entries (collection_id, on_day) where voided_at is null;

    create table heat_zones (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      rack_id uuid not null,
      name text not null check (length(name) between 1 and 60),
      warm_c double precision not null check (warm_c between 5 and 60),
      cool_c double precision not null check (cool_c between 5 and 60 and cool_c < warm_c),
      thermostat boolean not null,
      every_days integer not null check (every_days between 1 and 365),
      version integer not null default 1,
      unique (collection_id, id),
      foreign key (collection_id, rack_id) references racks (collection_id, id) on delete cascade
    );
    create table surface_checks (
      collection_id uuid not null references collections (id) on delete cascade,
      id uuid primary key,
      zone_id uuid not null,
      on_day date not null,
      warm_c double precision not null,
      cool_c double precision not null,
      probe_fixed boolean not null,
      note text check (length(note) <= 300),
      author_id uuid not null references accounts (id),
      recorded_at timestamptz not null default clock_timestamp(),
      voided_at timestamptz,
      voided_by uuid references accounts (id),
      void_reason text,
      foreign key (collection_id, zone_id) references heat_zones (collection_id, id) on delete cascade,
      check ((voided_at is null) = (voided_by is null) and (voided_at is null) = (void_reason is null))
    );
    create index surface_checks_zone on surface_checks (collection_id, zone_id, on_day desc) where voided_at is null;
  `,
  down: `
    drop table surface_checks;
    drop table heat_zones;
    drop table stock_entries;
    drop table feeding_plans;
    alter table collections drop column room_assumptions;
    alter table collections drop column order_rules;
    alter table collections drop column feeding_rules;
    drop trigger records_changed on records;
    drop trigger records_added on records;
    drop function count_record_changes;
    alter table animals drop column records_revision;
    delete from records where kind in ('care', 'own-way');
    alter table records drop constraint records_kind_check;
    alter table records add constraint records_kind_check check (kind in
      ('weight', 'feeding', 'shed', 'sex', 'identification', 'move', 'plan', 'note'));
  `,
};
