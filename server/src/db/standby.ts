import { Refusal } from '../refusal.ts';
import { isDatabaseAway } from './faults.ts';
import type { Database } from './work.ts';

/**
 * Reads what may be a moment old: from a standby where one is configured. What is not there yet is looked for on the primary,
 * and so is everything while no standby answers.
 */
export async function readingLately<T>(
  database: Database,
  read: (source: Database) => Promise<T>,
): Promise<T> {
  if (database.standby === null) return read(database);
  try {
    return await read(database.standby);
  } catch (error) {
    const isNotThere = error instanceof Refusal && error.code === 'not-found';
    if (!isNotThere && !isDatabaseAway(error)) throw error;
    return read(database);
  }
}
