import { ROUTES, type CollectionSettings } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { invalidField } from '../../refusal.ts';
import { changeCollection } from '../../domain/collection/change-collection.ts';

async function changeSettings(
  work: Work,
  change: CollectionSettings,
  version: number,
): Promise<CollectionSettings & { version: number }> {
  const { collectionId } = work.actor;
  if (change.ladderId) {
    const ladder = await work.models.ladders.findOne({
      where: { collectionId, id: change.ladderId },
      transaction: work.transaction,
    });
    if (!ladder) throw invalidField('ladderId', 'names no ladder of this collection');
  }
  const values = {
    ...change,
    ladderId: change.ladderId ?? null,
    ...(change.timeZone === undefined ? {} : { timeZone: change.timeZone }),
  };
  return { ...values, ...(await changeCollection(work, values, version)) };
}

export function settingsRoutes({ write }: Endpoints): void {
  write(ROUTES.changeSettings, ({ work, body, version }) => changeSettings(work, body, version));
}
