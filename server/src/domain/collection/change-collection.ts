import { raiseVersion } from '../../db/change-rows.ts';
import type { CollectionRow } from '../../db/rows.ts';
import type { Work } from '../../db/work.ts';
import { stale } from '../../refusal.ts';

/** Changes what the whole collection has set, where it still is as it was read. */
export async function changeCollection(
  work: Work,
  values: Partial<CollectionRow>,
  version: number,
): Promise<{ version: number }> {
  const where = { id: work.actor.collectionId, version };
  const changed = await raiseVersion(work, work.models.collections, where, values);
  if (changed === 0) throw stale('What the collection has set');
  return { version: version + 1 };
}
