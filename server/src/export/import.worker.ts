import { closeSync, openSync } from 'node:fs';
import type { Config } from '../config.ts';
import { openStore } from '../files/open-store.ts';
import { OperatorError } from '../operator-error.ts';
import { importCollection, type Imported } from './read-export.ts';

/* A thread of its own that takes in one archive from a file. */

export interface ImportJob {
  readonly config: Pick<Config, 'directDatabaseUrl' | 'dataDir' | 's3'>;
  readonly file: string;
  /** Of the account that owns the collection from now on. */
  readonly ownerEmail: string;
}

/** What came in, or why nothing did. */
export type ImportOutcome = { readonly imported: Imported } | { readonly refusal: string };

export default async function run({ config, file, ownerEmail }: ImportJob): Promise<ImportOutcome> {
  const descriptor = openSync(file, 'r');
  try {
    const files = await openStore(config, () => undefined);
    const databaseUrl = config.directDatabaseUrl;
    return { imported: await importCollection({ databaseUrl, files }, descriptor, ownerEmail) };
  } catch (error) {
    // Classes do not come through to the other thread.
    if (error instanceof OperatorError) return { refusal: error.message };
    throw error;
  } finally {
    closeSync(descriptor);
  }
}
