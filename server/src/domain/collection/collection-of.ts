import type { CollectionRow } from '../../db/rows.ts';
import { oncePerRead } from '../../db/once-per-read.ts';
import type { Work } from '../../db/work.ts';

/** What the whole collection has set. */
export const collectionOf = (work: Work): Promise<CollectionRow> =>
  oncePerRead(work, 'collection', async () => {
    const { models, actor, transaction } = work;
    return (
      await models.collections.findByPk(actor.collectionId, { transaction, rejectOnEmpty: true })
    ).get();
  });
