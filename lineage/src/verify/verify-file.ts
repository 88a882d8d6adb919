import { InputError } from '@karyotome/core';
import { formatOf, readStatement, STATEMENT_FORMAT, type StatedPicture } from '../document/statement.ts';
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
  const isZip = ZIP_SIGNATURES.some((signature) => signature.every((byte, i) => bytes[i] === byte));
  return isZip ? verifyPackage(await openBag(bytes)) : verifyStatement(statementIn(bytes));
}

const statementIn = (bytes: Uint8Array): ReturnType<typeof readStatement> => statementOf(readJson(bytes));

function statementOf(document: unknown): ReturnType<typeof readStatement> {
  if (formatOf(document) !== STATEMENT_FORMAT)
    throw refusal('credentialSubject.format', `must be "${STATEMENT_FORMAT}"`);
  return readStatement(document);
}

function verifyPackage(bag: Bag): Verification | VerificationList {
  const folders = [...bag.payload.keys()]
    .filter((path) => IN_FOLDER.test(path))
    .map((path) => path.slice(0, -STATEMENT.length));
  if (bag.payload.has(STATEMENT)) {
    if (folders.length > 0) throw refusal('archive', 'holds one animal at its top and others in folders');
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
