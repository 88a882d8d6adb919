import { createWriteStream } from 'node:fs';
import { Writable } from 'node:stream';
import type { Config } from '../config.ts';
import { openStore } from '../files/open-store.ts';
import { writeExport } from './write-export.ts';

/* A thread of its own that writes one export to a file: rows and digests would keep the answering thread busy. */

export interface ExportJob {
  readonly config: Pick<Config, 'directDatabaseUrl' | 'dataDir' | 's3'>;
  readonly collection: { readonly collectionId: string; readonly name: string };
  /** Where it is written. */
  readonly file: string;
}

export default async function run({ config, collection, file }: ExportJob): Promise<void> {
  const target = createWriteStream(file, { flags: 'wx', mode: 0o600 });
  await writeExport(
    { databaseUrl: config.directDatabaseUrl, files: await openStore(config, () => undefined) },
    collection,
    Writable.toWeb(target),
  );
}
