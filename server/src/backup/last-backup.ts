import type { BackupView } from '@karyotome/contract';
import type { Work } from '../db/work.ts';
import { lastBackups } from './backups.queries.ts';

/** A backup older than this is late: a night may fail, two may not. */
export const LATE_MS = 2 * 86_400_000;

/** @param folder - where backups are made every night; null where none are */
export async function lastBackup(
  { sequelize, transaction }: Work,
  folder: string | null,
): Promise<BackupView> {
  const { last, failed } = await lastBackups(sequelize, transaction);
  const isLate = last === null || Date.now() - Date.parse(last.madeAt) > LATE_MS;
  return { isNightly: folder !== null, last, failed, isLate };
}
