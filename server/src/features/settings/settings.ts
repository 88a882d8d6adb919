import { ROUTES, type CollectionSettings } from '@karyotome/contract';
import { lastBackup } from '../../backup/last-backup.ts';
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

/** @param backupFolder - where backups are made every night; null where none are */
export function settingsRoutes({ read, write }: Endpoints, backupFolder: string | null): void {
  read(ROUTES.backup, ({ work }) => lastBackup(work, backupFolder));
  write(ROUTES.changeSettings, ({ work, body, version }) => changeSettings(work, body, version));
}
