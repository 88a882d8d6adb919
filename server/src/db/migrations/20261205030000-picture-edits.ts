import type { Migration } from '../migration.ts';

/* How a picture was turned and cropped. Null where it is shown as it came. */
export const pictureEdits: Migration = {
  name: '20261205030000-picture-edits',
  up: 'alter table pictures add column edit jsonb;',
  down: 'alter table pictures drop column edit;',
};
