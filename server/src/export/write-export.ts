import type { WritableStream } from 'node:stream/web';
import Papa from 'papaparse';
import type pg from 'pg';
import { BagWriter } from '../files/bag-writer.ts';
import { readIfWhole, type FileStore } from '../files/file-store.ts';
import { beginSnapshot, withClient } from '../backup/snapshot.queries.ts';
import { csvOf } from './csv.ts';
import { describePackage, pathOf } from './descriptor.ts';
import {
  exportedTables,
  filesOf,
  peopleOf,
  rowsOfTable,
  statementsIn,
  type Table,
} from './tables.queries.ts';

/** The people that rows name, by name alone: what they sign in with is theirs. */
const PEOPLE: Table = {
  name: 'accounts',
  columns: [
    { name: 'id', type: 'uuid', isRequired: true },
    { name: 'name', type: 'text', isRequired: true },
  ],
  key: ['id'],
  references: [],
};

/**
 * Writes everything of a collection, of one moment: a BagIt bag in a zip, with its tables as CSV, a Data Package that describes
 * them, pictures, labels, cards and statements.
 *
 * @param target - closed at the end
 */
export function writeExport(
  { databaseUrl, files }: { readonly databaseUrl: string; readonly files: FileStore },
  { collectionId, name }: { readonly collectionId: string; readonly name: string },
  target: WritableStream<Uint8Array>,
): Promise<void> {
  return withClient(databaseUrl, async (client) => {
    await beginSnapshot(client);
    const at = new Date();
    const bag = new BagWriter(target, at, exportName(at));
    const tables = await exportedTables(client);
    for (const table of tables)
      await bag.addStream(
        pathOf(table.name),
        csvOf(
          table.columns.map(({ name }) => name),
          rowsOfTable(client, table, collectionId),
        ),
        { isText: true },
      );
    const people = await peopleOf(client, tables, collectionId);
    await bag.add(pathOf(PEOPLE.name), Buffer.from(Papa.unparse(people, { columns: ['id', 'name'] })));
    await bag.add(
      'datapackage.json',
      Buffer.from(
        `${JSON.stringify(describePackage(name, at.toISOString(), [...tables, PEOPLE]), null, 1)}\n`,
      ),
    );
    await addFiles(client, bag, files, collectionId);
    await bag.close();
  });
}

/** @returns `karyotome-2026-11-30` */
export const exportName = (at: Date): string => `karyotome-${at.toISOString().slice(0, 10)}`;

async function addFiles(
  client: pg.Client,
  bag: BagWriter,
  files: FileStore,
  collectionId: string,
): Promise<void> {
  for (const { animalId, statement, document } of await statementsIn(client, collectionId))
    await bag.add(`statements/${animalId}/${statement}.json`, Buffer.from(document));
  const missing: string[] = [];
  for (const file of await filesOf(client, collectionId)) {
    const path = `${file.folder}/${file.name}`;
    const bytes = await readIfWhole(files, file);
    if (bytes === null) missing.push(path);
    else await bag.add(path, bytes);
  }
  if (missing.length > 0) await bag.add('missing-files.txt', Buffer.from(`${missing.join('\n')}\n`));
}
