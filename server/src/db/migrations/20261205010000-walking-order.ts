import type { Migration } from '../migration.ts';

const NOT_IMPORTING = "when (current_setting('karyotome.importing', true) is distinct from 'on')";
/** Left out of the history: the order is one for all racks, so that a rack put elsewhere moves those after it. */
const keptWithout = (leftOut: string): string => `
    create trigger keep_history after insert or update or delete on racks for each row ${NOT_IMPORTING}
      execute function keep_history('rack', '${leftOut}', '');`;

/* The order in which the racks are walked past: theirs until now was by room, kind of tub and name. */
export const walkingOrder: Migration = {
  name: '20261205010000-walking-order',
  up: `
    alter table racks add column walk_order integer not null default 0;
    drop trigger keep_history on racks;
    update racks k set walk_order = o.place
      from (select collection_id, id,
                   row_number() over (partition by collection_id order by room, step_position, name) as place
              from racks) o
     where o.collection_id = k.collection_id and o.id = k.id;
    ${keptWithout('id collection_id version created_at recorded_at author_id walk_order')}
  `,
  down: `
    drop trigger keep_history on racks;
    alter table racks drop column walk_order;
    ${keptWithout('id collection_id version created_at recorded_at author_id')}
  `,
};
