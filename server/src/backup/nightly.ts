import type { Config } from '../config.ts';
import { MIGRATIONS, pendingMigrations } from '../db/migrate.ts';
import type { Database } from '../db/work.ts';
import type { FileStore } from '../files/file-store.ts';
import { sweepFiles } from '../files/sweep.ts';
import { Refusal } from '../refusal.ts';
import { inOwnThread } from '../threads/own-thread.ts';
import { lastBackups, noteBackup } from './backups.queries.ts';
import type { ThreadAnswer } from './backup.worker.ts';
import { faultOf, makeBackup, type BackupConfig, type MadeBackup } from './make-backup.ts';

/** Backups of a night are due from this hour, where the machine stands. */
const NIGHT_HOUR = 3;
const DAY_MS = 86_400_000;

/** The last moment at which a backup was due, milliseconds since 1970. */
function lastDue(at: number): number {
  const due = new Date(at);
  due.setHours(NIGHT_HOUR, 0, 0, 0);
  return due.getTime() <= at ? due.getTime() : due.getTime() - DAY_MS;
}

/** Makes the night's backup where it is due: asked for again and again, since the machine may be off at night. */
export async function backUpNightly(
  database: Database,
  files: FileStore,
  config: BackupConfig,
): Promise<void> {
  const { backupFolder } = config;
  if (backupFolder === null || (await database.models.accounts.count()) === 0) return;
  const { last } = await lastBackups(database.sequelize);
  if (last && Date.parse(last.madeAt) >= lastDue(Date.now())) return;
  const made = await inOwnThread<ThreadAnswer>(new URL('./backup.worker', import.meta.url), {
    config: { ...config },
    folder: backupFolder,
  });
  if ('fault' in made) {
    if (made.fault === 'busy') return;
    await noteBackup(database.sequelize, 'regular', backupFolder, { fault: made.fault });
    throw new Error(`The backup could not be made: ${made.message}`);
  }
  await noteBackup(database.sequelize, 'regular', backupFolder, made);
  // What was to be removed meanwhile was left for this.
  await sweepFiles(database, files);
}

/**
 * Makes a backup before the schema changes, where there is something to lose.
 *
 * @returns what to note once the schema has its table for it; null where nothing had to be made
 * @throws Error where it could not be made: nothing is migrated then
 */
export async function backUpBeforeMigration(database: Database, config: Config): Promise<MadeBackup | null> {
  const { backupFolder } = config;
  if (backupFolder === null) return null;
  const pending = await pendingMigrations(database.sequelize);
  if (pending.length === 0 || pending.length === MIGRATIONS.length) return null;
  if ((await database.models.accounts.count()) === 0) return null;
  try {
    return await makeBackup(config, backupFolder, 'before-migration');
  } catch (error) {
    // Another machine that starts is at it.
    if (error instanceof Refusal && error.code === 'busy') return null;
    throw new Error(
      `No backup could be made before the database is migrated (${faultOf(error)}): nothing was changed. ` +
        'Mend that, or set BACKUP_FOLDER=none to go on without one.',
      { cause: error },
    );
  }
}
