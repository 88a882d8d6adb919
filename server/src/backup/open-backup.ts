import { createHash } from 'node:crypto';
import { fstat, read } from 'node:fs';
import { promisify } from 'node:util';
import { checkBag, isText, PAYLOAD, type ArchivedFile } from '@karyotome/lineage';
import { configure, Reader, ZipReader, type FileEntry } from '@zip.js/zip.js';
import { OperatorError } from '../operator-error.ts';
import { DESCRIPTION, description, DUMP, FILES, type Description } from './archive.ts';

configure({ useWebWorkers: false });

/** An archive that is no whole backup. */
export class DamagedBackup extends OperatorError {
  constructor(what: string, options?: ErrorOptions) {
    super(`This backup cannot be used: ${what}`, options);
    this.name = 'DamagedBackup';
  }
}

/** A backup whose every file is what was written. */
export interface OpenBackup {
  readonly description: Description;
  /** The names of its files, `<folder>/<name>`. */
  readonly files: readonly string[];
  /** Unpacks one of its files. */
  readFile(file: string): Promise<Uint8Array>;
  /** Unpacks the dump into a stream, which is closed at the end. */
  writeDump(target: WritableStream<Uint8Array>): Promise<void>;
}

/**
 * Reads the whole archive once, and holds every file against the manifests.
 *
 * @param descriptor - of the open file, which stays open
 * @throws DamagedBackup naming what is wrong
 */
export async function openBackup(descriptor: number): Promise<OpenBackup> {
  const entries = await entriesOf(descriptor);
  const archived = new Map<string, ArchivedFile>();
  for (const [path, entry] of entries) archived.set(path, await digestOf(entry, path));
  const faulty = faultsIn(archived);
  if (faulty.length > 0) throw new DamagedBackup(faulty.join('; '));
  for (const needed of [DESCRIPTION, DUMP])
    if (!archived.has(PAYLOAD + needed)) throw new DamagedBackup(`it lacks ${PAYLOAD}${needed}`);
  const prefix = `${PAYLOAD}${FILES}`;
  return {
    description: readDescription(archived.get(PAYLOAD + DESCRIPTION)!.bytes!),
    files: [...entries.keys()]
      .filter((path) => path.startsWith(prefix))
      .map((path) => path.slice(prefix.length)),
    readFile: (file) => bytesOf(entries.get(prefix + file)!),
    writeDump: async (target) => void (await entries.get(PAYLOAD + DUMP)!.getData(target)),
  };
}

const readAt = promisify(read);

/** Reads where it is asked to, so that an archive larger than the memory can be opened. */
class DescriptorReader extends Reader<number> {
  readonly #descriptor: number;

  constructor(descriptor: number) {
    super(descriptor);
    this.#descriptor = descriptor;
  }

  override async init(): Promise<void> {
    await super.init?.();
    this.size = (await promisify(fstat)(this.#descriptor)).size;
  }

  override async readUint8Array(index: number, length: number): Promise<Uint8Array> {
    const bytes = Buffer.alloc(Math.max(0, Math.min(length, this.size - index)));
    let done = 0;
    while (done < bytes.length) {
      const { bytesRead } = await readAt(this.#descriptor, bytes, done, bytes.length - done, index + done);
      if (bytesRead === 0) break;
      done += bytesRead;
    }
    return new Uint8Array(bytes.buffer, bytes.byteOffset, done);
  }
}

async function entriesOf(descriptor: number): Promise<Map<string, FileEntry>> {
  const reader = new ZipReader(new DescriptorReader(descriptor), {
    strictness: 'strict',
    checkOverlappingEntry: true,
    checkSignature: true,
  });
  try {
    const entries = new Map<string, FileEntry>();
    for await (const entry of reader.getEntriesGenerator()) {
      if (entry.directory) continue;
      if (entries.has(entry.filename)) throw new DamagedBackup(`it holds ${entry.filename} twice`);
      entries.set(entry.filename, entry);
    }
    return entries;
  } catch (error) {
    if (error instanceof DamagedBackup) throw error;
    throw new DamagedBackup('it is no zip, or not all of one: it may have been cut off', { cause: error });
  }
}

async function digestOf(entry: FileEntry, path: string): Promise<ArchivedFile> {
  const digest = createHash('sha256');
  const parts: Uint8Array[] = [];
  const isKept = isText(path) && !path.startsWith(PAYLOAD + FILES);
  const target = new WritableStream<Uint8Array>({
    write(part) {
      digest.update(part);
      if (isKept) parts.push(part);
    },
  });
  try {
    await entry.getData(target);
  } catch (error) {
    throw new DamagedBackup(`${path} cannot be read`, { cause: error });
  }
  return { digest: digest.digest('hex'), ...(isKept ? { bytes: Buffer.concat(parts) } : {}) };
}

function faultsIn(archived: ReadonlyMap<string, ArchivedFile>): string[] {
  const words = {
    'file-missing': 'is missing',
    'file-changed': 'was changed',
    'file-not-listed': 'is in no manifest',
    'file-listed-twice': 'stands twice in the manifest',
  };
  try {
    const { faults, tagFaults } = checkBag(archived);
    return [...faults, ...tagFaults].map(([path, fault]) => `${path} ${words[fault]}`);
  } catch (error) {
    throw new DamagedBackup((error as Error).message, { cause: error });
  }
}

function readDescription(bytes: Uint8Array): Description {
  let parsed: unknown;
  try {
    parsed = JSON.parse(new TextDecoder().decode(bytes));
  } catch (error) {
    throw new DamagedBackup(`${DESCRIPTION} is no JSON`, { cause: error });
  }
  const { value, error } = description.validate(parsed, { convert: false });
  if (error) throw new DamagedBackup(`${DESCRIPTION}: ${error.message}`);
  return value;
}

async function bytesOf(entry: FileEntry): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  await entry.getData(new WritableStream<Uint8Array>({ write: (part) => void parts.push(part) }));
  return Buffer.concat(parts);
}
