import { connect } from './connection.ts';
import { createModels } from './models.ts';
import type { Database } from './work.ts';

/** How long daily work waits for what is inferred, milliseconds: a small change is worked out by then. */
const INFERENCE_PATIENCE_MS = 300;

export interface OpenOptions {
  /** Called with every statement. */
  readonly log?: (sql: string) => void;
  readonly inferencePatienceMs?: number;
  /** Of a standby that follows the database, where there is one. */
  readonly standbyUrl?: string | null;
}

/** The records at an address, with their pool of connections. @param onFault - told of faults that end no request */
export function openDatabase(
  url: string,
  onFault: (error: unknown) => void,
  { log, inferencePatienceMs = INFERENCE_PATIENCE_MS, standbyUrl = null }: OpenOptions = {},
): Database {
  const open = (at: string, standby: Database | null): Database => {
    const sequelize = connect(at, log);
    return { sequelize, models: createModels(sequelize), onFault, inferencePatienceMs, standby };
  };
  return open(url, standbyUrl === null ? null : open(standbyUrl, null));
}

/** Opens the records for a command, and closes them at its end whatever happens. */
export async function withDatabase<T>(url: string, run: (database: Database) => Promise<T>): Promise<T> {
  const database = openDatabase(url, (error) => console.error(error));
  try {
    return await run(database);
  } finally {
    await closeDatabase(database);
  }
}

/** Closes its connections. */
export async function closeDatabase({ sequelize, standby }: Database): Promise<void> {
  await Promise.all([sequelize.close(), standby?.sequelize.close()]);
}
