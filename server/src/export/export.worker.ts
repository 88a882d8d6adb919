import { createWriteStream } from 'node:fs';
import { Writable } from 'node:stream';
import type { Config } from '../config.ts';
import { openStore } from '../files/open-store.ts';
import type { LongTable } from './long-tables.queries.ts';
import { writeExport } from './write-export.ts';
import { writeLongTable } from './write-long-table.ts';

/* A thread of its own that writes one export to a file: rows and digests would keep the answering thread busy. */

export interface ExportJob {
  readonly config: Pick<Config, 'directDatabaseUrl' | 'dataDir' | 's3'>;
  readonly collection: { readonly collectionId: string; readonly name: string };
  readonly what: 'everything' | LongTable;
  /** Where it is written. */
  readonly file: string;
}

export default async function run({ config, collection, what, file }: ExportJob): Promise<void> {
  const target = createWriteStream(file, { flags: 'wx', mode: 0o600 });
  const databaseUrl = config.directDatabaseUrl;
  if (what !== 'everything') return writeLongTable(databaseUrl, collection.collectionId, what, target);
  const files = await openStore(config, () => undefined);
  await writeExport({ databaseUrl, files }, collection, Writable.toWeb(target));
}
