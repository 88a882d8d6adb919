import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { PASSPHRASE_FILE, SIGNING_SECRET_FILE, type Config } from '../config.ts';
import { withDatabase } from '../db/open.ts';
import { writeDurably } from '../files/durable.ts';
import { openStore } from '../files/open-store.ts';
import { OperatorError } from '../operator-error.ts';
import { noteBackup } from './backups.queries.ts';
import { faultOf, makeBackup, sourceOf } from './make-backup.ts';
import { openBackup } from './open-backup.ts';
import { openSigningSecret, restoreFiles, restoreRecords } from './restore-backup.ts';
import { backupName } from './rotation.ts';
import { writeBackup, type BackupSummary } from './write-backup.ts';

/* What npm run backup and npm run restore do. */

/**
 * Makes a backup now.
 *
 * @param descriptor - of the file to write it to; null for the folder of the nightly ones
 */
export async function backUp(config: Config, descriptor: number | null): Promise<void> {
  if (descriptor !== null) {
    const target = createWriteStream('', { fd: descriptor, flush: true });
    const summary = await writeBackup(await sourceOf(config), Writable.toWeb(target));
    // For the launcher, which gives the file its name.
    console.log(JSON.stringify({ name: backupName('regular', new Date(summary.madeAt)) }));
    return told(summary);
  }
  const { backupFolder } = config;
  if (backupFolder === null)
    throw new OperatorError('BACKUP_FOLDER is none. Say where to: npm run backup -- --to FOLDER');
  return withDatabase(config.databaseUrl, async ({ sequelize }) => {
    const made = await makeBackup(config, backupFolder, 'regular').catch(async (error: unknown) => {
      await noteBackup(sequelize, 'regular', backupFolder, { fault: faultOf(error) });
      throw error;
    });
    await noteBackup(sequelize, 'regular', backupFolder, made);
    console.log(JSON.stringify({ file: join(backupFolder, made.file) }));
    told(made);
  });
}

function told({ rows, files, missing }: BackupSummary): void {
  console.error(`${rows} rows and ${files} files, all of one moment.`);
  for (const file of missing)
    console.error(`Missing or damaged where files are kept, so not in this backup: ${file}`);
}

/** Restores a backup into a database aside, which must be empty, and compares all of it with what was backed up. */
export async function verify(config: Config, descriptor: number): Promise<void> {
  const backup = await openBackup(descriptor);
  const { madeAt, tables, missing } = backup.description;
  await restoreRecords(backup, config.databaseUrl, config.postgresPrograms);
  console.log(
    `This backup of ${madeAt} is whole: ${Object.keys(tables).length} tables were restored and compared, ${backup.files.length} files are what was written.`,
  );
  for (const file of missing) console.log(`Was missing or damaged already when it was made: ${file}`);
  const opens = await openSigningSecret(backup.description, config.backupPassphrase).then(
    () => true,
    () => false,
  );
  console.log(
    opens
      ? 'The passphrase of this data folder opens its signing keys.'
      : 'Its signing keys need another passphrase than that of this data folder.',
  );
}

/** Restores a backup where there are no records yet: secrets and files first, so that no record is there without them. */
export async function restore(config: Config, descriptor: number): Promise<string> {
  const backup = await openBackup(descriptor);
  const signingSecret = await openSigningSecret(backup.description, config.backupPassphrase);
  await restoreRecords(backup, config.databaseUrl, config.postgresPrograms, async () => {
    await writeDurably(join(config.dataDir, SIGNING_SECRET_FILE), signingSecret);
    await writeDurably(join(config.dataDir, PASSPHRASE_FILE), config.backupPassphrase);
    await restoreFiles(backup, await openStore(config, () => undefined));
  });
  const { madeAt, tables } = backup.description;
  const rows = Object.values(tables).reduce((sum, table) => sum + table.rows, 0);
  console.log(
    `Restored what was there on ${madeAt}: ${rows} rows and ${backup.files.length} files, compared with what was backed up.`,
  );
  return signingSecret;
}
