import { changeAsRead } from '../../db/change-rows.ts';
import type { CollectionRow } from '../../db/rows.ts';
import type { Work } from '../../db/work.ts';

/** Changes what the whole collection has set, where it still is as it was read. */
export async function changeCollection(
  work: Work,
  values: Partial<CollectionRow>,
  version: number,
): Promise<{ version: number }> {
  const { collections } = work.models;
  const where = { id: work.actor.collectionId };
  return {
    version: await changeAsRead(work, collections, 'What the collection has set', where, version, values),
  };
}
