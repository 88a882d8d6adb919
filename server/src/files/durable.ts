import { randomUUID } from 'node:crypto';
import { mkdir, open, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';

/** What is being written, until it is whole. */
const UNFINISHED = '.part';

/**
 * Writes a file so that a power cut leaves all of it or nothing: under another name first, through to the disk, then renamed,
 * and the folder's own entry through to the disk.
 */
export async function writeDurably(path: string, data: Uint8Array | string, mode = 0o600): Promise<void> {
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
