import type { ClutchRow } from '../../db/breeding-rows.ts';
import type { Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';

export async function findClutch(work: Work, id: string): Promise<ClutchRow> {
  const { collectionId } = work.actor;
  const row = await work.models.clutches.findOne({
    where: { collectionId, id },
    transaction: work.transaction,
  });
  if (!row) throw notFound('This clutch');
  return row.get();
}
