import type { Migration } from '../migration.ts';

/*
 * Rooms have temperature and humidity as incubators do: limits, readings, alarms and a sensor. Both are places whose climate is
 * watched; what an incubator is set to, a room has not.
 */
export const rooms: Migration = {
  name: '20261202020000-rooms',
  up: `
    alter table incubators rename to climate_places;
    alter table climate_places
      add column kind text not null default 'incubator' check (kind in ('incubator', 'room')),
      alter column set_c drop not null,
      add constraint climate_places_set_c_check check ((kind = 'incubator') = (set_c is not null)),
      drop constraint incubators_collection_id_name_key,
      add constraint climate_places_name_key unique (collection_id, kind, name);
    alter table climate_places alter column kind drop default;
    alter table readings rename column incubator_id to place_id;
  `,
  down: `
    alter table readings rename column place_id to incubator_id;
    delete from climate_places where kind = 'room';
    alter table climate_places
      drop column kind,
      alter column set_c set not null,
      add constraint incubators_collection_id_name_key unique (collection_id, name);
    alter table climate_places rename to incubators;
  `,
};
