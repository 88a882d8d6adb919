import { InputError } from '@karyotome/core';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, concatBytes } from '@noble/hashes/utils.js';
import {
  configure,
  ERR_UNSAFE_FILENAME,
  Uint8ArrayReader,
  ZipReader,
  type Entry,
  type FileEntry,
} from '@zip.js/zip.js';
import { refusal } from '../document/fields.ts';

/*
 * Opens a zip of unknown origin: every limit is checked before what it limits is unpacked, and again while it is, since an
 * archive may say what it likes of itself.
 */

configure({ useWebWorkers: false });

export interface ArchiveLimits {
  readonly files: number;
  /** Unpacked, all files together. */
  readonly bytes: number;
  /** Unpacked, one file that is kept whole. A statement of the largest pedigree seen has 2 MiB. */
  readonly keptBytes: number;
}

const LIMITS: ArchiveLimits = { files: 10_000, bytes: 2 ** 30, keptBytes: 2 ** 25 };

export interface ArchivedFile {
  /** SHA-256, 64 hexadecimal digits in small letters. */
  readonly digest: string;
  /** Present where the caller asked for it. */
  readonly bytes?: Uint8Array;
}

/**
 * Unpacks an archive in memory, keeping a digest of every file, and the bytes of some. An archive that two programs could read
 * in two ways is refused: they would not see the same files.
 *
 * @param keeps - whether a file is wanted whole
 * @returns by path, in the archive's order
 * @throws InputError where it is no zip, an entry leaves its folder, or a limit is passed
 */
export async function openArchive(
  archive: Uint8Array,
  keeps: (path: string) => boolean,
  limits = LIMITS,
): Promise<Map<string, ArchivedFile>> {
  const reader = new ZipReader(new Uint8ArrayReader(archive), {
    strictness: 'strict',
    checkOverlappingEntry: true,
    checkSignature: true,
  });
  try {
    const files = new Map<string, ArchivedFile>();
    let left = limits.bytes;
    for (const entry of await listed(reader, limits)) {
      const file = await unpacked(entry, keeps(entry.filename), { ...limits, bytes: left });
      left -= file.length;
      files.set(entry.filename, file);
    }
    return files;
  } catch (error) {
    throw error instanceof InputError ? error : refusalOf(error);
  } finally {
    await reader.close();
  }
}

/** What the archive says that it holds. */
async function listed(reader: ZipReader<unknown>, { files, bytes }: ArchiveLimits): Promise<FileEntry[]> {
  const entries: FileEntry[] = [];
  let declared = 0;
  for await (const entry of reader.getEntriesGenerator()) {
    checkEntry(entry);
    if (entry.directory) continue;
    entries.push(entry);
    declared += entry.uncompressedSize;
    if (entries.length > files) throw tooLarge(`holds more than ${files} files`);
    if (declared > bytes) throw tooLarge(`unpacks to more than ${bytes} bytes`);
  }
  return entries;
}

function checkEntry({ filename, encrypted, symlink }: Entry): void {
  if (encrypted) throw refusal('archive', `holds ${shown(filename)}, which is encrypted`, 'archive');
  if (symlink) throw refusal('archive', `holds ${shown(filename)}, which is a link`, 'archive');
}

async function unpacked(
  entry: FileEntry,
  isKept: boolean,
  { bytes, keptBytes }: ArchiveLimits,
): Promise<ArchivedFile & { length: number }> {
  const digest = sha256.create();
  const parts: Uint8Array[] = [];
  let length = 0;
  await entry.getData(
    new WritableStream<Uint8Array>({
      write(part) {
        length += part.length;
        if (length > bytes) throw tooLarge('unpacks to more than it says, and than is allowed');
        if (isKept && length > keptBytes)
          throw tooLarge(`holds ${shown(entry.filename)}, which is larger than ${keptBytes} bytes`);
        digest.update(part);
        if (isKept) parts.push(part);
      },
    }),
  );
  return {
    digest: bytesToHex(digest.digest()),
    length,
    ...(isKept ? { bytes: concatBytes(...parts) } : {}),
  };
}

function refusalOf(error: unknown): InputError {
  const { message, filename } = error as Error & { filename?: string };
  // The library names its errors by their messages alone.
  return message === ERR_UNSAFE_FILENAME
    ? refusal('archive', `holds ${shown(filename ?? '')}, which leaves its folder`, 'archive')
    : refusal('archive', 'is no zip that can be read', 'archive');
}

const tooLarge = (message: string): InputError => refusal('archive', message, 'limit');
const shown = (name: string): string => JSON.stringify(name.slice(0, 80));
