import type { Migration } from '../migration.ts';

/*
 * What is computed and stored is read back as it was written, with its keys in their order: a page that is answered from what
 * was computed just now, and again from what was stored of it, is the same text, and so has the same ETag.
 */
export const computedKeepsItsOrder: Migration = {
  name: '20261130120000-computed-keeps-its-order',
  up: `
    alter table animal_states alter column facts type json;
    alter table due_tasks alter column task type json;
    alter table animal_claims alter column claims type json;
  `,
  down: `
    alter table animal_claims alter column claims type jsonb;
    alter table due_tasks alter column task type jsonb;
    alter table animal_states alter column facts type jsonb;
  `,
};
