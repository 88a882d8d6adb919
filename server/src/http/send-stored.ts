import { extname, join } from 'node:path';
import type { Response } from 'express';
import { fileMissing, type StoredFile } from '../files/store.ts';

const PICTURE_TYPES: Readonly<Record<string, string>> = {
  '.webp': 'image/webp',
  '.jpg': 'image/jpeg',
  '.png': 'image/png',
};

/** Sends a stored file. Answers 404 where the row's file is missing. */
export function sendStored(
  response: Response,
  dataDir: string,
  { folder, name }: StoredFile,
  headers: Record<string, string>,
): Promise<void> {
  return new Promise((resolve, reject) => {
    // Relative to a root: the data folder's own name may begin with a dot, which sendFile would refuse.
    response.sendFile(name, { root: join(dataDir, folder), headers, cacheControl: false }, (error) => {
      // Whoever asked is gone: nothing more to do.
      if (!error || response.headersSent || response.destroyed) resolve();
      else reject((error as { status?: number }).status === 404 ? fileMissing(error) : error);
    });
  });
}

/**
 * A picture never changes, so the browser may keep it and asks each time whether it may still show it: whoever signed out, or
 * whose page was withdrawn, may not.
 */
export function sendPicture(response: Response, dataDir: string, file: StoredFile): Promise<void> {
  return sendStored(response, dataDir, file, {
    'Cache-Control': 'private, no-cache',
    'Content-Type': PICTURE_TYPES[extname(file.name)] ?? 'application/octet-stream',
  });
}
