import { Writable } from 'node:stream';
import { isDeepStrictEqual } from 'node:util';
import { FOLDERS, isPlainName, type FileStore, type Folder } from '../files/file-store.ts';
import { MIGRATIONS } from '../db/migrate.ts';
import { OperatorError } from '../operator-error.ts';
import { keyFromPassword, unsealed } from '../sealing.ts';
import type { Description, TableSummary } from './archive.ts';
import { DamagedArchive } from '../files/bag-reader.ts';
import type { OpenBackup } from './open-backup.ts';
import { restoreDatabase } from './postgres-programs.ts';
import {
  emptyDatabase,
  hasAccounts,
  postgresVersion,
  tableSummaries,
  withClient,
} from './snapshot.queries.ts';

/**
 * Opens the secret that encrypts signing keys.
 *
 * @throws OperatorError where the passphrase is another one
 */
export async function openSigningSecret(
  { signingSecret: { kdf, sealed } }: Description,
  passphrase: string,
): Promise<string> {
  const opened = unsealed(sealed, await keyFromPassword(passphrase, Buffer.from(kdf.salt, 'base64')));
  if (opened === null) throw new OperatorError('The passphrase is not the one of this backup.');
  return Buffer.from(opened).toString();
}

/** A version of PostgreSQL, as people count them: of 150014, 15. */
const major = (version: number): number => Math.floor(version / 10_000);

/**
 * Fills a database with what the backup holds, all of it or nothing, and compares each table with what it held.
 *
 * @param before - what has to be there before the records are, done once it is known that they can be
 * @throws OperatorError where there are records in it, or this program or PostgreSQL is older than the backup
 */
export function restoreRecords(
  backup: OpenBackup,
  url: string,
  programs: string | null,
  before: () => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  return withClient(url, async (client) => {
    const { migrations, postgres, tables } = backup.description;
    const known = new Set(MIGRATIONS.map(({ name }) => name));
    const strangers = migrations.filter((name) => !known.has(name));
    if (strangers.length > 0)
      throw new OperatorError(`The backup was made by a newer version of this program (${strangers[0]}).`);
    const here = await postgresVersion(client);
    if (major(here) < major(postgres))
      throw new OperatorError(
        `The backup was made with PostgreSQL ${major(postgres)}; this is ${major(here)}, which may not read it.`,
      );
    if (await hasAccounts(client))
      throw new OperatorError('There are records already. A backup is restored only where there are none.');
    await before();
    await emptyDatabase(client);
    const restoring = restoreDatabase(programs, url);
    try {
      await backup.writeDump(Writable.toWeb(restoring.child.stdin!) as WritableStream<Uint8Array>);
    } catch (error) {
      // Where the program ended first, what it said tells more than the broken pipe.
      await restoring.ended;
      throw error;
    }
    await restoring.ended;
    const differing = differences(tables, await tableSummaries(client));
    if (differing.length === 0) return;
    await emptyDatabase(client);
    throw new DamagedArchive(`tables differ from what was backed up: ${differing.join(', ')}`);
  });
}

function differences(
  wanted: Readonly<Record<string, TableSummary>>,
  found: Readonly<Record<string, TableSummary>>,
): string[] {
  const names = new Set([...Object.keys(wanted), ...Object.keys(found)]);
  return [...names].filter((name) => !isDeepStrictEqual(wanted[name], found[name]));
}

/** Puts the files where files are kept. Those that are there already are written again. */
export async function restoreFiles(backup: OpenBackup, files: FileStore): Promise<void> {
  for (const path of backup.files) {
    const [folder, ...rest] = path.split('/');
    const name = rest.join('/');
    if (!FOLDERS.includes(folder as Folder) || !isPlainName(name))
      throw new DamagedArchive(`it holds a file that belongs nowhere: ${path}`);
    await files.write({ folder: folder as Folder, name }, await backup.readFile(path));
  }
}
