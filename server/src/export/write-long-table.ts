import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { WriteStream } from 'node:fs';
import { beginSnapshot, withClient } from '../backup/snapshot.queries.ts';
import { csvLines } from '../http/send-table.ts';
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
    const columns = LONG_COLUMNS[table];
    async function* text(): AsyncGenerator<string> {
      yield csvLines([Object.fromEntries(columns.map((name) => [name, name]))], columns);
      for await (const rows of longRows(client, table, collectionId)) yield csvLines(rows, columns);
    }
    await pipeline(Readable.from(text()), target);
  });
}
