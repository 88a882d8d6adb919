import type { WritableStream } from 'node:stream/web';
import { BACKUP_KDF } from '@karyotome/contract';
import { BagWriter } from '../files/bag-writer.ts';
import { readIfWhole, type FileStore } from '../files/file-store.ts';
import { Refusal } from '../refusal.ts';
import { CIPHER, keyFromPassword, newSalt, sealed } from '../sealing.ts';
import {
  DESCRIPTION,
  DUMP,
  FILES,
  FORMAT,
  WITHOUT_ROWS,
  type Description,
  type SealedSecret,
} from './archive.ts';
import { dumpDatabase } from './postgres-programs.ts';
import {
  beginSnapshot,
  migrationsIn,
  namedFiles,
  postgresVersion,
  tableSummaries,
  takeBackupLock,
  withClient,
} from './snapshot.queries.ts';

export interface BackupSource {
  /** The database itself, not a pooler: a snapshot is passed between connections. */
  readonly databaseUrl: string;
  readonly files: FileStore;
  readonly signingSecret: string;
  readonly passphrase: string;
  /** Where PostgreSQL's programs are; null where the system finds them. */
  readonly programs: string | null;
}

/** What was written. */
export interface BackupSummary {
  readonly madeAt: string;
  readonly rows: number;
  readonly files: number;
  /** Files that rows name and that were missing or damaged already. */
  readonly missing: readonly string[];
}

/**
 * Writes a backup of one moment while others go on writing.
 *
 * @param target - closed at the end
 * @throws Refusal `busy` where another backup is being made
 * @throws Error where PostgreSQL's dump failed; what was written is then of no use
 */
export function writeBackup(
  source: BackupSource,
  target: WritableStream<Uint8Array>,
): Promise<BackupSummary> {
  return withClient(source.databaseUrl, async (client) => {
    if (!(await takeBackupLock(client)))
      throw new Refusal('busy', 'Another backup is being made. Wait until it is done.');
    const snapshot = await beginSnapshot(client);
    const at = new Date();
    const archive = new BagWriter(target, at);
    const named = await namedFiles(client);
    const missing: string[] = [];
    for (const file of named) {
      // Missing or damaged, it is told of, and the rest is backed up.
      const bytes = await readIfWhole(source.files, file);
      if (bytes === null) missing.push(`${file.folder}/${file.name}`);
      else await archive.add(`${FILES}${file.folder}/${file.name}`, bytes);
    }
    const dump = dumpDatabase(source.programs, source.databaseUrl, snapshot, WITHOUT_ROWS);
    await archive.addStream(DUMP, dump.output);
    await dump.ended;
    const description: Description = {
      format: FORMAT,
      madeAt: at.toISOString(),
      migrations: await migrationsIn(client),
      postgres: await postgresVersion(client),
      tables: await tableSummaries(client),
      missing,
      signingSecret: await sealSecret(source.signingSecret, source.passphrase),
    };
    await archive.add(DESCRIPTION, Buffer.from(`${JSON.stringify(description, null, 1)}\n`));
    await archive.close();
    const rows = Object.values(description.tables).reduce((sum, table) => sum + table.rows, 0);
    return { madeAt: description.madeAt, rows, files: named.length - missing.length, missing };
  });
}

async function sealSecret(secret: string, passphrase: string): Promise<SealedSecret> {
  const salt = newSalt();
  return {
    kdf: { ...BACKUP_KDF, salt: salt.toString('base64') },
    cipher: CIPHER,
    sealed: sealed(Buffer.from(secret), await keyFromPassword(passphrase, salt)),
  };
}
