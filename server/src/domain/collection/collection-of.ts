import type { CollectionRow } from '../../db/rows.ts';
import type { Work } from '../../db/work.ts';

/** What the whole collection has set. */
export async function collectionOf({ models, actor, transaction }: Work): Promise<CollectionRow> {
  return (await models.collections.findByPk(actor.collectionId, { transaction, rejectOnEmpty: true })).get();
}
