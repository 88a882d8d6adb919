import { InputError, type Pedigree } from '@karyotome/core';
import {
  formatOf,
  readStatement,
  STATEMENT_FORMAT,
  type StatedPicture,
  type Statement,
} from '../document/statement.ts';
import { readSuccession, SUCCESSION_FORMAT } from '../document/succession.ts';
import { refusal } from '../document/fields.ts';
import { readJson } from '../json/read-json.ts';
import type { ArchivedFile } from '../package/open-archive.ts';
import { openBag, type Bag } from '../package/open-bag.ts';
import { hexToDigestMultibase } from '../proof/multibase.ts';
import type { Verification, VerificationList, VerifiedFile } from './answer.ts';
import type { Earlier } from './check-chain.ts';
import type { FileFault, Problem } from './problems.ts';
import { verifyStatement } from './verify-statement.ts';

const STATEMENT = 'lineage.json';
/** Of one animal among several; `earlier` is the folder of statements before. */
const IN_FOLDER = /^(?!earlier\/)[^/]+\/lineage\.json$/;
const EARLIER = /^earlier\/[^/]+\.json$/;
/** How every zip begins: with an entry, or with the end of an empty directory. */
const ZIP_SIGNATURES = [
  [0x50, 0x4b, 0x03, 0x04],
  [0x50, 0x4b, 0x05, 0x06],
];

/**
 * Verifies a lineage document, or a hand-over package, without a network.
 *
 * @throws InputError where it is neither: one issue, naming the field or file at fault
 */
export async function verifyFile(bytes: Uint8Array): Promise<Verification | VerificationList> {
  return isZip(bytes) ? verifyPackage(await openBag(bytes)) : verifyStatement(statementIn(bytes));
}

const isZip = (bytes: Uint8Array): boolean =>
  ZIP_SIGNATURES.some((signature) => signature.every((byte, i) => bytes[i] === byte));

const statementIn = (bytes: Uint8Array): ReturnType<typeof readStatement> => statementOf(readJson(bytes));

function statementOf(document: unknown): ReturnType<typeof readStatement> {
  if (formatOf(document) !== STATEMENT_FORMAT)
    throw refusal('credentialSubject.format', `must be "${STATEMENT_FORMAT}"`);
  return readStatement(document);
}

/** One animal of a package: what was found of its statement, and what came with it. */
export interface ReceivedAnimal {
  readonly verification: Verification;
  readonly statement: Statement;
  readonly pedigree: Pedigree;
  /** As it was signed, byte for byte. */
  readonly document: string;
  /** Dated husbandry records, as JSON; null where none came along. */
  readonly records: unknown;
  readonly pictures: readonly { readonly file: string; readonly bytes: Uint8Array }[];
}

const PICTURE = /\.(jpe?g|png|webp)$/i;
const RECORDS = 'records.json';

/**
 * Reads a lineage document, or a hand-over package, with everything that is taken in of it.
 *
 * @throws InputError where it is neither
 */
export async function receiveFile(bytes: Uint8Array): Promise<ReceivedAnimal[]> {
  if (!isZip(bytes)) {
    const read = statementIn(bytes);
    return [{ ...read, ...NOTHING_ENCLOSED, verification: verifyStatement(read), document: utf8(bytes) }];
  }
  const bag = await openBag(bytes, (path) => PICTURE.test(path));
  const verified = verifyPackage(bag);
  const folders = foldersOf(bag);
  const documents = 'documents' in verified ? verified.documents : [verified];
  // What is wrong with the package as a whole is wrong with each animal in it.
  const ofAll = 'documents' in verified ? verified.problems : [];
  return folders.map((folder, i) => {
    const { valid, problems, ...verification } = documents[i]!;
    const own = (name: string): Uint8Array | undefined => bag.payload.get(`${folder}${name}`)?.bytes;
    const document = own(STATEMENT)!;
    const records = own(RECORDS);
    return {
      ...statementIn(document),
      verification: {
        ...verification,
        valid: valid && ofAll.length === 0,
        problems: [...problems, ...ofAll],
      },
      document: utf8(document),
      records: records ? inFile(`data/${folder}${RECORDS}`, () => readJson(records)) : null,
      pictures: [...bag.payload].flatMap(([path, file]) =>
        path.startsWith(`${folder}pictures/`) && file.bytes ? [{ file: path, bytes: file.bytes }] : [],
      ),
    };
  });
}

const NOTHING_ENCLOSED = { records: null, pictures: [] } as const;
const utf8 = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);

/** The animals' folders, each with its slash; the empty one where there is one animal at the top. */
function foldersOf(bag: Bag): string[] {
  if (bag.payload.has(STATEMENT)) return [''];
  return [...bag.payload.keys()]
    .filter((path) => IN_FOLDER.test(path))
    .map((path) => path.slice(0, -STATEMENT.length));
}

function verifyPackage(bag: Bag): Verification | VerificationList {
  const folders = foldersOf(bag);
  if (folders.includes('')) {
    if ([...bag.payload.keys()].some((path) => IN_FOLDER.test(path)))
      throw refusal('archive', 'holds one animal at its top and others in folders');
    return verifyFolder(bag, '', bag.tagFaults);
  }
  if (folders.length === 0) throw refusal('archive', `holds no ${STATEMENT}`);
  const documents = folders.map((folder) => verifyFolder(bag, folder, new Map()));
  const isOutside = (path: string): boolean => !folders.some((folder) => path.startsWith(folder));
  const outside = [...bag.faults].filter(([path]) => isOutside(path));
  const problems = [...bag.tagFaults, ...outside].map(problemOf);
  return {
    format: 'karyotome-verification-list/1',
    valid: problems.length === 0 && documents.every(({ valid }) => valid),
    documents,
    problems,
  };
}

/** @param folder - of one animal, within the payload: empty, or with its slash */
function verifyFolder(bag: Bag, folder: string, ofBag: ReadonlyMap<string, FileFault>): Verification {
  const within = <T>(map: ReadonlyMap<string, T>): Map<string, T> =>
    new Map(
      [...map].flatMap(([path, value]) =>
        path.startsWith(folder) ? [[path.slice(folder.length), value] as const] : [],
      ),
    );
  const payload = within(bag.payload);
  const faults = within(bag.faults);
  const read = inFile(`data/${folder}${STATEMENT}`, () => statementIn(bytesOf(payload, STATEMENT)));
  const pictures = pictureFaults(read.statement.credentialSubject.pictures ?? [], payload);
  const all = new Map([...pictures, ...faults]);
  const names = new Set([...payload.keys(), ...all.keys()]);
  names.delete(STATEMENT);
  return verifyStatement(read, {
    earlier: earlierIn(payload, folder),
    files: [...names].map((file): VerifiedFile => ({ file, intact: !all.has(file) })),
    problems: [...ofBag, ...all].map(problemOf),
  });
}

function bytesOf(payload: ReadonlyMap<string, ArchivedFile>, file: string): Uint8Array {
  return payload.get(file)!.bytes!;
}

const problemOf = ([file, code]: readonly [string, FileFault]): Problem => ({ code, facts: { file } });

/** Pictures that the statement names, held against what came with it. */
function pictureFaults(
  pictures: readonly StatedPicture[],
  payload: ReadonlyMap<string, ArchivedFile>,
): Map<string, FileFault> {
  return new Map(
    pictures.flatMap(({ file, digestMultibase }): [string, FileFault][] => {
      const found = payload.get(file);
      if (!found) return [[file, 'file-missing']];
      return hexToDigestMultibase(found.digest) === digestMultibase ? [] : [[file, 'file-changed']];
    }),
  );
}

function earlierIn(payload: ReadonlyMap<string, ArchivedFile>, folder: string): Earlier {
  const statements: Earlier['statements'][number][] = [];
  const successions: Earlier['successions'][number][] = [];
  for (const file of [...payload.keys()].filter((path) => EARLIER.test(path)))
    inFile(`data/${folder}${file}`, () => {
      const document = readJson(bytesOf(payload, file));
      if (formatOf(document) === SUCCESSION_FORMAT)
        successions.push({ file, succession: readSuccession(document) });
      else statements.push({ file, statement: statementOf(document).statement });
    });
  return { statements, successions };
}

/** Names the file of a package that a refused document stands in. */
function inFile<T>(file: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    throw new InputError(error.issues.map((issue) => ({ ...issue, path: `${file}: ${issue.path}` })));
  }
}
