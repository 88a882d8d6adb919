import type { Migration } from '../migration.ts';

/* Tubs follow from the size of their rack, which the history has: two dozen lines for each rack told nothing more. */
export const tubsFollowTheirRack: Migration = {
  name: '20261202040000-tubs-follow-their-rack',
  up: 'drop trigger keep_history on tubs;',
  down: `
    create trigger keep_history after insert or update or delete on tubs for each row
      when (current_setting('karyotome.importing', true) is distinct from 'on')
      execute function keep_history('tub', 'id collection_id version created_at recorded_at author_id', '');
  `,
};
