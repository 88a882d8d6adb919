import type { Migration } from '../migration.ts';

/** What runs where a table's rows change, by whose states are computed from them. */
const RUN_BY_TABLE = {
  records: 'states_of_animal',
  stated_evidence: 'states_of_animal',
  pairing_events: 'states_of_paired',
  clutches: 'states_of_paired',
  pairing_sires: 'states_of_sires',
  pairings: 'states_of_dams',
  feeding_plans: 'states_of_collection',
  ladder_steps: 'states_of_collection',
  racks: 'states_of_collection',
  taken_statements: 'states_of_collection',
  breeders: 'states_of_collection',
} as const;

const EVENTS = { insert: 'new', update: 'new', delete: 'old' } as const;

/** A trigger for each kind of change, since each has rows of its own to tell of. */
const onEveryChange = ([table, run]: readonly [table: string, run: string]): string =>
  Object.entries(EVENTS)
    .map(
      ([event, rows]) => `
    create trigger ${table}_${event}_states after ${event} on ${table}
      referencing ${rows} table as changed for each statement execute function ${run}();`,
    )
    .join('');

/** A trigger's function that makes states stale. @param whose - selects `collection_id` and `animal_id` by the rows that changed */
const makesStale = (name: string, whose: string): string => `
    create function ${name}() returns trigger language plpgsql as $$
      begin
        update animal_states s set changes = s.changes + 1
          from (select distinct collection_id, animal_id from (${whose}) rows) w
         where s.collection_id = w.collection_id and s.animal_id = w.animal_id;
        return null;
      end $$;`;

/*
 * What husbandry computes of each animal for a day is stored, with the tasks that are due. A change of what it was computed
 * from raises \`changes\` in the same transaction; a row whose \`computed_for\` is another number is computed anew before it
 * is shown. Animals that left the collection have no row.
 */
export const animalStates: Migration = {
  name: '20261130090000-animal-states',
  up: `
    -- Voided records are shown too.
    create index records_of_animal on records (collection_id, animal_id, on_day desc, recorded_at desc);

    create table herd_days (
      collection_id uuid not null references collections (id) on delete cascade,
      day date not null,
      fit_revision integer not null default 1,
      growth jsonb not null,
      appetite jsonb not null,
      primary key (collection_id, day)
    );

    -- A row that is made anew counts on from a number that no earlier one of the same animal and day can reach.
    create sequence state_beginnings;

    create table animal_states (
      collection_id uuid not null,
      animal_id uuid not null,
      day date not null,
      changes bigint not null default (nextval('state_beginnings') << 20),
      computed_for bigint not null default 0,
      sex text,
      age_days double precision,
      off_curve double precision,
      plan_id text,
      is_shedding boolean,
      is_meal_day boolean,
      board text,
      board_order smallint,
      mass_g double precision,
      facts jsonb,
      primary key (collection_id, day, animal_id),
      foreign key (collection_id, animal_id) references animals (collection_id, id) on delete cascade,
      foreign key (collection_id, day) references herd_days (collection_id, day) on delete cascade,
      check (computed_for = 0 or facts is not null)
    );
    create index animal_states_stale on animal_states (collection_id, day, animal_id) where computed_for <> changes;
    create index animal_states_animal on animal_states (collection_id, animal_id);
    create index animal_states_shedding on animal_states (collection_id, day) where is_shedding;
    create index animal_states_meals on animal_states (collection_id, day) where is_meal_day;
    create index animal_states_board on animal_states (collection_id, day, sex, board_order, animal_id) where board is not null;
    create index animal_states_growth on animal_states (collection_id, day, sex, age_days, off_curve);

    create table due_tasks (
      collection_id uuid not null,
      day date not null,
      animal_id uuid not null,
      ordinal smallint not null,
      act text not null,
      kind text not null,
      urgency smallint not null check (urgency in (0, 1)),
      place_key text collate "C" not null,
      clutch_id uuid,
      prey text,
      task jsonb not null,
      foreign key (collection_id, day, animal_id) references animal_states (collection_id, day, animal_id) on delete cascade
    );
    create index due_tasks_place on due_tasks (collection_id, day, urgency, place_key, animal_id, ordinal);
    create index due_tasks_act on due_tasks (collection_id, day, act, urgency, place_key, animal_id, ordinal)
      include (clutch_id, prey);
    create index due_tasks_animal on due_tasks (collection_id, day, animal_id);

    create function is_kept_here(status text) returns boolean language sql immutable
      return status not in ('sold', 'died', 'mistaken', 'outside');

    create function states_follow_animals() returns trigger language plpgsql as $$
      begin
        if is_kept_here(new.status) then
          insert into animal_states (collection_id, animal_id, day)
            select d.collection_id, new.id, d.day from herd_days d where d.collection_id = new.collection_id
            on conflict (collection_id, day, animal_id) do update set changes = animal_states.changes + 1;
        else
          delete from animal_states where collection_id = new.collection_id and animal_id = new.id;
        end if;
        return null;
      end $$;
    create trigger animals_added_states after insert on animals for each row execute function states_follow_animals();
    create trigger animals_changed_states
      after update of number, sex, hatched_on, clutch_id, tub_id, status on animals
      for each row execute function states_follow_animals();

    ${makesStale('states_of_animal', 'select collection_id, animal_id from changed')}
    ${makesStale(
      'states_of_paired',
      `select p.collection_id, p.dam_id as animal_id from changed c
         join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
       union
       select m.collection_id, m.sire_id from changed c
         join pairing_sires m on m.collection_id = c.collection_id and m.pairing_id = c.pairing_id`,
    )}
    ${makesStale('states_of_sires', 'select collection_id, sire_id as animal_id from changed')}
    ${makesStale(
      'states_of_dams',
      `select collection_id, dam_id as animal_id from changed
       union
       select m.collection_id, m.sire_id from changed c
         join pairing_sires m on m.collection_id = c.collection_id and m.pairing_id = c.id`,
    )}

    create function states_of_collection() returns trigger language plpgsql as $$
      begin
        update animal_states s set changes = s.changes + 1
          from (select distinct collection_id from changed) c where s.collection_id = c.collection_id;
        return null;
      end $$;
    ${Object.entries(RUN_BY_TABLE).map(onEveryChange).join('')}
    create function states_of_rules() returns trigger language plpgsql as $$
      begin
        update animal_states set changes = changes + 1 where collection_id = new.id;
        return null;
      end $$;
    create trigger collections_changed_states after update of feeding_rules, sale_rules, season_rules on collections
      for each row when ((old.feeding_rules, old.sale_rules, old.season_rules)
        is distinct from (new.feeding_rules, new.sale_rules, new.season_rules))
      execute function states_of_rules();
    create function states_of_fit() returns trigger language plpgsql as $$
      begin
        update animal_states set changes = changes + 1 where collection_id = new.collection_id and day = new.day;
        return null;
      end $$;
    create trigger herd_days_changed_states after update of fit_revision on herd_days
      for each row when (old.fit_revision <> new.fit_revision) execute function states_of_fit();
  `,
  down: `
    drop trigger collections_changed_states on collections;
    ${Object.keys(RUN_BY_TABLE)
      .flatMap((table) =>
        Object.keys(EVENTS).map((event) => `drop trigger ${table}_${event}_states on ${table};`),
      )
      .join('\n    ')}
    drop trigger animals_changed_states on animals;
    drop trigger animals_added_states on animals;
    drop index records_of_animal;
    drop table due_tasks;
    drop table animal_states;
    drop sequence state_beginnings;
    drop table herd_days;
    drop function states_follow_animals, states_of_animal, states_of_dams, states_of_sires, states_of_paired, states_of_collection,
      states_of_rules, states_of_fit, is_kept_here;
  `,
};
