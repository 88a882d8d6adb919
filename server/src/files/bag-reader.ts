import { createHash } from 'node:crypto';
import { fstat, read } from 'node:fs';
import { promisify } from 'node:util';
import { checkBag, isText, PAYLOAD, type ArchivedFile } from '@karyotome/lineage';
import { configure, Reader, ZipReader, type FileEntry } from '@zip.js/zip.js';
import type Joi from 'joi';
import { OperatorError } from '../operator-error.ts';

configure({ useWebWorkers: false });

/** An archive that is not whole, or is none of its kind. */
export class DamagedArchive extends OperatorError {
  constructor(what: string, options?: ErrorOptions) {
    super(`This archive cannot be used: ${what}`, options);
    this.name = 'DamagedArchive';
  }
}

/** A BagIt bag (RFC 8493) in a zip, whose every file is what its manifests say. */
export interface CheckedBag {
  /** Within `data/`. */
  readonly paths: readonly string[];
  has(path: string): boolean;
  /** Unpacks a file. */
  read(path: string): Promise<Uint8Array>;
  /** Unpacks a file into a stream, which is closed at the end. */
  write(path: string, target: WritableStream<Uint8Array>): Promise<void>;
}

/**
 * Reads the whole archive once, and holds every file against the manifests.
 *
 * @param descriptor - of the open file, which stays open
 * @throws DamagedArchive naming what is wrong
 */
export async function readBag(descriptor: number): Promise<CheckedBag> {
  const entries = await entriesOf(descriptor);
  const archived = new Map<string, ArchivedFile>();
  for (const [path, entry] of entries) archived.set(path, await digestOf(entry, path));
  const faulty = faultsIn(archived);
  if (faulty.length > 0) throw new DamagedArchive(faulty.join('; '));
  const payload = new Map(
    [...entries].flatMap(([path, entry]) => {
      const [, within] = IN_PAYLOAD.exec(path) ?? [];
      return within === undefined ? [] : [[within, entry] as const];
    }),
  );
  const entryAt = (path: string): FileEntry => {
    const entry = payload.get(path);
    if (!entry) throw new DamagedArchive(`it lacks ${PAYLOAD}${path}`);
    return entry;
  };
  return {
    paths: [...payload.keys()],
    has: (path) => payload.has(path),
    async read(path) {
      const parts: Uint8Array[] = [];
      await entryAt(path).getData(new WritableStream<Uint8Array>({ write: (part) => void parts.push(part) }));
      return Buffer.concat(parts);
    },
    write: async (path, target) => void (await entryAt(path).getData(target)),
  };
}

/** A file of an archive as JSON that fits a schema. @throws DamagedArchive naming the file and the field */
export async function readJsonOf<T>(bag: CheckedBag, path: string, schema: Joi.Schema<T>): Promise<T> {
  const bytes = await bag.read(path);
  let parsed: unknown;
  try {
    parsed = JSON.parse(new TextDecoder().decode(bytes));
  } catch (error) {
    throw new DamagedArchive(`${path} is no JSON`, { cause: error });
  }
  const { value, error } = schema.validate(parsed, { convert: false });
  if (error) throw new DamagedArchive(`${path}: ${error.message}`);
  return value;
}

/** The bag lies at the top, or in a folder of its own. */
const IN_PAYLOAD = new RegExp(`^(?:[^/]+/)??${PAYLOAD}(.+)$`);

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
      if (entries.has(entry.filename)) throw new DamagedArchive(`it holds ${entry.filename} twice`);
      entries.set(entry.filename, entry);
    }
    return entries;
  } catch (error) {
    if (error instanceof DamagedArchive) throw error;
    throw new DamagedArchive('it is no zip, or not all of one: it may have been cut off', { cause: error });
  }
}

async function digestOf(entry: FileEntry, path: string): Promise<ArchivedFile> {
  const digest = createHash('sha256');
  const parts: Uint8Array[] = [];
  const isKept = isText(path) && !IN_PAYLOAD.test(path);
  const target = new WritableStream<Uint8Array>({
    write(part) {
      digest.update(part);
      if (isKept) parts.push(part);
    },
  });
  try {
    await entry.getData(target);
  } catch (error) {
    throw new DamagedArchive(`${path} cannot be read`, { cause: error });
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
    throw new DamagedArchive((error as Error).message, { cause: error });
  }
}
