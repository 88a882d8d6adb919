import { connect } from './connection.ts';
import { createModels } from './models.ts';
import type { Database } from './work.ts';

/** How long daily work waits for what is inferred, milliseconds: a small change is worked out by then. */
const INFERENCE_PATIENCE_MS = 300;

export interface OpenOptions {
  /** Called with every statement. */
  readonly log?: (sql: string) => void;
  readonly inferencePatienceMs?: number;
}

/** The records at an address, with their pool of connections. @param onFault - told of faults that end no request */
export function openDatabase(
  url: string,
  onFault: (error: unknown) => void,
  { log, inferencePatienceMs = INFERENCE_PATIENCE_MS }: OpenOptions = {},
): Database {
  const sequelize = connect(url, log);
  return { sequelize, models: createModels(sequelize), onFault, inferencePatienceMs };
}
