import { PassThrough, Writable } from 'node:stream';
import Joi from 'joi';
import Papa from 'papaparse';
import type pg from 'pg';
import { codeOf } from '../db/faults.ts';
import { withClient } from '../backup/snapshot.queries.ts';
import { DamagedArchive, readBag, readJsonOf, type CheckedBag } from '../files/bag-reader.ts';
import { isPlainName, type FileStore, type StoredFile } from '../files/file-store.ts';
import { OperatorError } from '../operator-error.ts';
import { pathOf } from './descriptor.ts';
import {
  accountIdOf,
  beginImport,
  holdLetters,
  insertOwner,
  insertPeople,
  insertRows,
  isHere,
  isPageNameTaken,
  neededSecrets,
} from './insert-rows.queries.ts';
import { exportedTables, filesOf, type Table } from './tables.queries.ts';

/* Takes in a collection that was exported (write-export.ts), here or by another installation: all of it, or nothing. */

export interface Imported {
  readonly name: string;
  readonly rows: number;
  readonly files: number;
  /** Named by rows, and not in the archive: missing already where it was exported. */
  readonly missing: readonly string[];
}

/** Who may use a collection is decided where it is. */
const NOT_TAKEN = 'memberships';

/**
 * @param descriptor - of the open archive
 * @param ownerEmail - of the account that owns the collection from now on
 * @throws OperatorError where the archive is damaged, of another version, or here already
 */
export async function importCollection(
  { databaseUrl, files }: { readonly databaseUrl: string; readonly files: FileStore },
  descriptor: number,
  ownerEmail: string,
): Promise<Imported> {
  const bag = await readBag(descriptor);
  return withClient(databaseUrl, async (client) => {
    const accountId = await accountIdOf(client, ownerEmail.toLowerCase());
    if (accountId === null) throw new OperatorError(`No account has the address ${ownerEmail}.`);
    const written: StoredFile[] = [];
    try {
      await beginImport(client);
      const tables = await sameTables(bag, await exportedTables(client));
      const collection = await takeCollection(client, bag, tables);
      await insertPeople(client, (await rowsIn(bag, 'accounts')) as { id: string; name: string }[]);
      let rows = 1;
      const secrets = await neededSecrets(client);
      for (const table of tables)
        if (table.name !== 'collections' && table.name !== NOT_TAKEN)
          rows += await takeTable(client, bag, table, secrets.get(table.name) ?? []);
      await holdLetters(client, collection.id);
      await insertOwner(client, { collectionId: collection.id, accountId });
      const missing = await takeFiles(client, bag, files, collection.id, written);
      await client.query('commit');
      return { name: collection.name, rows, files: written.length, missing };
    } catch (error) {
      await client.query('rollback').catch(() => undefined);
      await files.remove(written);
      throw told(error);
    }
  });
}

/** SQLSTATE 23: what came in breaks a rule of the records. */
function told(error: unknown): unknown {
  if (error instanceof OperatorError || !codeOf(error)?.startsWith('23')) return error;
  const { table = '', constraint = '' } = error as { table?: string; constraint?: string };
  return new DamagedArchive(`rows of ${table} break the rule ${constraint}`, { cause: error });
}

interface Description {
  readonly resources: readonly {
    readonly path: string;
    readonly schema: { readonly fields: readonly { readonly name: string }[] };
  }[];
}

const description = Joi.object<Description>({
  resources: Joi.array()
    .items(
      Joi.object({
        path: Joi.string().required(),
        schema: Joi.object({
          fields: Joi.array().items(Joi.object({ name: Joi.string().required() }).unknown()),
        })
          .required()
          .unknown(),
      }).unknown(),
    )
    .required(),
}).unknown();

const DESCRIPTOR = 'datapackage.json';

/** The tables of the archive, where they are those of this version. */
async function sameTables(bag: CheckedBag, own: readonly Table[]): Promise<readonly Table[]> {
  const { resources } = await readJsonOf(bag, DESCRIPTOR, description);
  const given = new Map(
    resources.map(({ path, schema }) => [path, schema.fields.map(({ name }) => name).join(' ')]),
  );
  given.delete(pathOf('accounts'));
  const differing = own.filter(
    ({ name, columns }) => given.get(pathOf(name)) !== columns.map((column) => column.name).join(' '),
  );
  const strange = [...given.keys()].filter((path) => !own.some(({ name }) => pathOf(name) === path));
  if (differing.length > 0 || strange.length > 0)
    throw new OperatorError(
      `This collection was exported by another version: bring both to the same one. Different are ${[...differing.map(({ name }) => pathOf(name)), ...strange].join(', ')}.`,
    );
  return own;
}

async function takeCollection(
  client: pg.Client,
  bag: CheckedBag,
  tables: readonly Table[],
): Promise<{ id: string; name: string }> {
  const table = tables.find(({ name }) => name === 'collections')!;
  const [row, ...others] = (await rowsIn(bag, table.name)).map((one) => withNothing(table, one));
  if (!row || others.length > 0) throw new DamagedArchive(`${pathOf(table.name)} must hold one row`);
  const { id, name, page_name: pageName } = row as { id: string; name: string; page_name: string };
  if (await isHere(client, id)) throw new OperatorError(`The collection ${name} is here already.`);
  const isTaken = await isPageNameTaken(client, pageName);
  await insertRows(
    client,
    table,
    [],
    [{ ...row, page_name: isTaken ? `${pageName}-${id.slice(0, 8)}` : pageName }],
  );
  return { id, name };
}

type Row = Record<string, string>;

/** Of a table that is small. */
async function rowsIn(bag: CheckedBag, table: string): Promise<Row[]> {
  const text = new TextDecoder().decode(await bag.read(pathOf(table)));
  return Papa.parse<Row>(text, { header: true, skipEmptyLines: true }).data;
}

/** Nothing and an empty text are written alike: what may be nothing is nothing. */
const withNothing = ({ columns }: Table, row: Row): Record<string, string | null> =>
  Object.fromEntries(
    columns.map(({ name, type, isRequired }) => {
      const text = row[name] ?? '';
      return [name, text === '' && !(isRequired && type === 'text') ? null : text];
    }),
  );

const BATCH = 2_000;

/** @returns how many rows came in */
async function takeTable(
  client: pg.Client,
  bag: CheckedBag,
  table: Table,
  secrets: readonly string[],
): Promise<number> {
  let count = 0;
  let batch: Record<string, string | null>[] = [];
  const insert = async (): Promise<void> => {
    if (batch.length > 0) await insertRows(client, table, secrets, batch);
    count += batch.length;
    batch = [];
  };
  const rows = Papa.parse(Papa.NODE_STREAM_INPUT, { header: true, skipEmptyLines: true });
  const toRows = new Writable({
    objectMode: true,
    write(row: Row, _encoding, done) {
      batch.push(withNothing(table, row));
      if (batch.length < BATCH) return done();
      insert().then(() => done(), done);
    },
    final(done) {
      insert().then(() => done(), done);
    },
  });
  const ended = new Promise<void>((resolve, reject) => {
    toRows.once('finish', resolve).once('error', reject);
    rows.once('error', reject);
  });
  rows.pipe(toRows);
  const entry = new PassThrough();
  entry.pipe(rows);
  await Promise.all([
    bag.write(pathOf(table.name), Writable.toWeb(entry) as WritableStream<Uint8Array>),
    ended,
  ]);
  return count;
}

/** @param written - filled with what is there for good: removed again where the rows are not */
async function takeFiles(
  client: pg.Client,
  bag: CheckedBag,
  files: FileStore,
  collectionId: string,
  written: StoredFile[],
): Promise<string[]> {
  const missing: string[] = [];
  for (const file of await filesOf(client, collectionId)) {
    const path = `${file.folder}/${file.name}`;
    if (!isPlainName(file.name)) throw new DamagedArchive(`a row names a file that belongs nowhere: ${path}`);
    if (!bag.has(path)) missing.push(path);
    else {
      await files.write(file, await bag.read(path));
      written.push(file);
    }
  }
  return missing;
}
