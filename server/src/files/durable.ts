import { randomUUID } from 'node:crypto';
import { mkdir, open, rename, rm, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';

/** Ends the name of what is being written, until it is whole. */
const UNFINISHED = '.part';

/**
 * Makes a file so that a power cut leaves all of it or nothing: under another name first, through to the disk, then renamed,
 * and the folder's own entry through to the disk.
 *
 * @param fill - writes it under the name that it is given, at which there is nothing yet
 * @returns what filling it answered
 */
export async function makeDurably<T>(path: string, fill: (unfinished: string) => Promise<T>): Promise<T> {
  await mkdir(dirname(path), { recursive: true, mode: 0o700 });
  const unfinished = `${path}.${randomUUID()}${UNFINISHED}`;
  try {
    const answer = await fill(unfinished);
    await sync(unfinished, 'r+');
    await rename(unfinished, path);
    await sync(dirname(path), 'r');
    return answer;
  } catch (error) {
    await rm(unfinished, { force: true });
    throw error;
  }
}

/** Writes a small file durably: see `makeDurably`. */
export const writeDurably = (path: string, data: Uint8Array | string, mode = 0o600): Promise<void> =>
  makeDurably(path, (unfinished) => writeFile(unfinished, data, { mode, flag: 'wx' }));

/** Through to the disk: what a file holds, or the entries of a folder. */
async function sync(path: string, flags: 'r' | 'r+'): Promise<void> {
  const handle = await open(path, flags);
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
