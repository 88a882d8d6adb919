import { createHash, webcrypto } from 'node:crypto';
import { extname } from 'node:path';
import { Refusal } from '../refusal.ts';

/*
 * Where files are kept: in the data folder, or in a store that speaks S3. Each belongs to a row; it is there for good before
 * the transaction that names it commits, and goes once the one that drops its row has. A file never changes: its name carries
 * the digest of what it holds, and the id of its row, so that no two rows share one and none takes another's away.
 */

/** What rows name files of. */
export const FOLDERS = ['pictures', 'labels', 'cards'] as const;
export type Folder = (typeof FOLDERS)[number];

/** Of a file in a folder, or in one within; no way out of it. */
export const isPlainName = (name: string): boolean => /^(?:\w[\w-]*\/)?\w[\w.-]*$/.test(name);

export interface StoredFile {
  readonly folder: Folder;
  /** Within the folder. */
  readonly name: string;
}

export interface FileStore {
  /** Writes a file for good: once it resolves, a power cut takes nothing of it. */
  write(file: StoredFile, data: Uint8Array): Promise<void>;
  has(file: StoredFile): Promise<boolean>;
  /** @throws Refusal `not-found` where it is not there, or is not what was written */
  read(file: StoredFile): Promise<Buffer>;
  /** Those that are not there are passed over. */
  remove(files: readonly StoredFile[]): Promise<void>;
  /** Every file of a folder whose name begins so, with its age. */
  list(folder: Folder, prefix?: string): Promise<(StoredFile & { readonly ageMs: number })[]>;
}

export const fileMissing = (cause: unknown): Refusal =>
  new Refusal('not-found', 'The file is missing from where files are kept.', { cause });

/** What a file holds; null where it is not there, or is not what was written. */
export async function readIfWhole(store: FileStore, file: StoredFile): Promise<Buffer | null> {
  try {
    return await store.read(file);
  } catch (error) {
    if (error instanceof Refusal && error.code === 'not-found') return null;
    throw error;
  }
}

/** The SHA-256 in a name, before its ending. Names of earlier versions have none. */
const DIGEST = /-([0-9a-f]{64})(?=\.\w+$)/;

/** A name with the digest of what it names: `<id>.webp` becomes `<id>-<SHA-256>.webp`. */
export function namedByContent(name: string, data: Uint8Array): string {
  const ending = extname(name);
  const digest = createHash('sha256').update(data).digest('hex');
  return `${name.slice(0, name.length - ending.length)}-${digest}${ending}`;
}

/** The SHA-256, in hexadecimal digits, of what a file holds; null where its name does not say. */
export const digestIn = (name: string): string | null => DIGEST.exec(name)?.[1] ?? null;

/** The name without its digest: the same for people, whatever the file holds. */
export const withoutDigest = (name: string): string => name.replace(DIGEST, '');

/**
 * The same store, which holds what it reads against the digest in its name.
 *
 * @param onFault - told of files that are not what was written
 */
export function checked(store: FileStore, onFault: (error: unknown) => void): FileStore {
  return {
    ...store,
    async read(file) {
      const data = await store.read(file);
      const digest = digestIn(file.name);
      if (digest === null) return data;
      // Counted in a thread of Node's own: an original may have 20 MB.
      const found = Buffer.from(await webcrypto.subtle.digest('SHA-256', data)).toString('hex');
      if (found === digest) return data;
      const damage = new Error(`The file ${file.folder}/${file.name} is not what was written.`);
      onFault(damage);
      throw new Refusal('not-found', 'The file is damaged where it is kept. A backup may hold it.', {
        cause: damage,
      });
    },
  };
}
