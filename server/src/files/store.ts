import { mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import { randomUUID } from 'node:crypto';
import { Refusal } from '../refusal.ts';

/*
 * Files in the data folder. Each belongs to a row; it is on the disk for good before the transaction that names it commits,
 * and goes once the one that drops its row has.
 */

/** The folders of files that rows name, within the data folder. */
export const FOLDERS = ['pictures', 'labels', 'cards'] as const;
export type Folder = (typeof FOLDERS)[number];

export interface StoredFile {
  readonly folder: Folder;
  /** Within the folder. */
  readonly name: string;
}

export function pathOf(dataDir: string, { folder, name }: StoredFile): string {
  return join(dataDir, folder, name);
}

/** What is being written, until it is whole. */
const UNFINISHED = '.part';

/**
 * Writes a file so that a power cut leaves all of it or nothing: under another name first, through to the disk, then renamed,
 * and the folder's own entry through to the disk.
 */
export async function writeDurably(path: string, data: Buffer | string, mode = 0o600): Promise<void> {
  await mkdir(dirname(path), { recursive: true, mode: 0o700 });
  const unfinished = `${path}.${randomUUID()}${UNFINISHED}`;
  try {
    const file = await open(unfinished, 'wx', mode);
    try {
      await file.writeFile(data);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(unfinished, path);
  } catch (error) {
    await rm(unfinished, { force: true });
    throw error;
  }
  await syncFolder(dirname(path));
}

async function syncFolder(path: string): Promise<void> {
  const folder = await open(path, 'r');
  try {
    await folder.sync();
  } finally {
    await folder.close();
  }
}

export async function readStored(dataDir: string, file: StoredFile): Promise<Buffer> {
  try {
    return await readFile(pathOf(dataDir, file));
  } catch (error) {
    if ((error as { code?: string }).code === 'ENOENT') throw fileMissing(error);
    throw error;
  }
}

export function fileMissing(cause: unknown): Refusal {
  return new Refusal('not-found', 'The file is missing from the data folder.', { cause });
}

export async function removeStored(dataDir: string, files: readonly StoredFile[]): Promise<void> {
  for (const file of files) await rm(pathOf(dataDir, file), { force: true });
}

/** Every file of a folder with its age, subfolders included. */
export async function listStored(
  dataDir: string,
  folder: Folder,
): Promise<(StoredFile & { ageMs: number })[]> {
  const root = join(dataDir, folder);
  const entries = await readdir(root, { recursive: true, withFileTypes: true }).catch((error: unknown) => {
    if ((error as { code?: string }).code === 'ENOENT') return [];
    throw error;
  });
  const files = entries.filter((entry) => entry.isFile());
  return Promise.all(
    files.map(async (entry) => {
      const path = join(entry.parentPath, entry.name);
      return { folder, name: relative(root, path), ageMs: Date.now() - (await stat(path)).mtimeMs };
    }),
  );
}
