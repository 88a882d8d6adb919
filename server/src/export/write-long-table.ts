import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { WriteStream } from 'node:fs';
import { beginSnapshot, withClient } from '../backup/snapshot.queries.ts';
import { csvOf } from './csv.ts';
import { LONG_COLUMNS, longRows, type LongTable } from './long-tables.queries.ts';

/** Writes every weight, or every meal, of a collection as CSV, one a row. @param target - closed at the end */
export function writeLongTable(
  databaseUrl: string,
  collectionId: string,
  table: LongTable,
  target: WriteStream,
): Promise<void> {
  return withClient(databaseUrl, async (client) => {
    await beginSnapshot(client);
    const rows = longRows(client, table, collectionId);
    await pipeline(Readable.from(csvOf(LONG_COLUMNS[table], rows, { escapeFormulae: true })), target);
  });
}
