import type { Migration } from '../migration.ts';

/* Staying in a tub was stored as a task. It is a mark beside other tasks now: what was stored is computed anew. */
const COMPUTED_ANEW = 'update animal_states set computed_for = 0;';
export const stayingIsNoTask: Migration = {
  name: '20261203010000-staying-is-no-task',
  up: COMPUTED_ANEW,
  down: COMPUTED_ANEW,
};
