import { literal } from 'sequelize';
import type { CollectionRow } from '../../db/rows.ts';
import type { Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';

/** Changes what the whole collection has set, where it still is as it was read. */
export async function changeCollection(
  work: Work,
  values: Partial<CollectionRow>,
  version: number,
): Promise<{ version: number }> {
  const [changed] = await work.models.collections.update(
    { ...values, version: literal('version + 1') as never },
    { where: { id: work.actor.collectionId, version }, transaction: work.transaction },
  );
  if (changed === 0)
    throw new Refusal('stale', 'The settings were changed in the meantime. Reload to see them.');
  return { version: version + 1 };
}
