import type { Migration } from '../migration.ts';

/* How many are on the season board is counted from the index alone: the rows are wide, and many. */
export const boardCounts: Migration = {
  name: '20261130150000-board-counts',
  up: `
    drop index animal_states_board;
    create index animal_states_board on animal_states (collection_id, day, sex, board_order, animal_id)
      include (board) where board is not null;
  `,
  down: `
    drop index animal_states_board;
    create index animal_states_board on animal_states (collection_id, day, sex, board_order, animal_id)
      where board is not null;
  `,
};
