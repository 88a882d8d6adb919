import { createWriteStream } from 'node:fs';
import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import type { BackupFault } from '@karyotome/contract';
import type { Config } from '../config.ts';
import { codeOf } from '../db/faults.ts';
import { makeDurably } from '../files/durable.ts';
import { openStore } from '../files/open-store.ts';
import { writeBackup, type BackupSource, type BackupSummary } from './write-backup.ts';
import { backupName, backupsToRemove, type BackupKind } from './rotation.ts';

export type BackupConfig = Pick<
  Config,
  | 'directDatabaseUrl'
  | 'dataDir'
  | 's3'
  | 'signingSecret'
  | 'backupPassphrase'
  | 'backupFolder'
  | 'postgresPrograms'
>;

/** A backup in its folder. */
export interface MadeBackup extends BackupSummary {
  readonly file: string;
  readonly bytes: number;
}

export async function sourceOf(config: BackupConfig): Promise<BackupSource> {
  return {
    databaseUrl: config.directDatabaseUrl,
    // Damaged files are told of by the backup itself.
    files: await openStore(config, () => undefined),
    signingSecret: config.signingSecret,
    passphrase: config.backupPassphrase,
    programs: config.postgresPrograms,
  };
}

/** An archive that is not whole yet, made here or by the launcher. */
const UNFINISHED = /^karyotome-.*\.zip(\.[\w-]+)?\.part$/;
/** An unfinished archive so old belongs to a process that was ended. */
const ABANDONED_MS = 86_400_000;

/**
 * Makes a backup in a folder, and removes those that need not be kept any more. The archive bears its name once it is whole
 * and on the disk.
 */
export async function makeBackup(
  config: BackupConfig,
  folder: string,
  kind: BackupKind,
): Promise<MadeBackup> {
  const file = backupName(kind, new Date());
  const made = await makeDurably(join(folder, file), async (unfinished) => {
    const target = createWriteStream(unfinished, { flags: 'wx', mode: 0o600 });
    const summary = await writeBackup(await sourceOf(config), Writable.toWeb(target));
    return { ...summary, file, bytes: (await stat(unfinished)).size };
  });
  await tidyFolder(folder);
  return made;
}

async function tidyFolder(folder: string): Promise<void> {
  const names = await readdir(folder);
  for (const name of backupsToRemove(names)) await rm(join(folder, name), { force: true });
  for (const name of names.filter((one) => UNFINISHED.test(one))) {
    const path = join(folder, name);
    const info = await stat(path).catch(() => null);
    if (info && Date.now() - info.mtimeMs > ABANDONED_MS) await rm(path, { force: true });
  }
}

/** Why a backup could not be made, for whoever is told of it; the log holds the rest. */
export function faultOf(error: unknown): BackupFault {
  switch (codeOf(error)) {
    case 'ENOSPC':
    case 'EDQUOT':
      return 'disk-full';
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
    case 'ENOTDIR':
      return 'folder-not-writable';
    case 'ENOENT':
      return 'program-missing';
    default:
      return 'failed';
  }
}
