import type { Database } from '../db/work.ts';
import type { FileStore } from '../files/file-store.ts';
import { isBackupRunning } from './backups.queries.ts';

/**
 * The same store, which removes nothing while a backup is made: the backup may name what a row no longer does. What is left
 * is swept when the backup is done, or at the next start.
 */
export const keptDuringBackups = (store: FileStore, { sequelize }: Database): FileStore => ({
  ...store,
  async remove(files) {
    if (files.length > 0 && !(await isBackupRunning(sequelize))) await store.remove(files);
  },
});
