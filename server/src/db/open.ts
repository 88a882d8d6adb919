import { connect } from './connection.ts';
import { createModels } from './models.ts';
import type { Database } from './work.ts';

/** The records at an address, with their pool of connections. @param onFault - told of faults that end no request */
export function openDatabase(
  url: string,
  onFault: (error: unknown) => void,
  log?: (sql: string) => void,
): Database {
  const sequelize = connect(url, log);
  return { sequelize, models: createModels(sequelize), onFault };
}
