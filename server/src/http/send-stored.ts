import { extname } from 'node:path';
import type { Response } from 'express';
import { digestIn, type FileStore, type StoredFile } from '../files/file-store.ts';

const PICTURE_TYPES: Readonly<Record<string, string>> = {
  '.webp': 'image/webp',
  '.jpg': 'image/jpeg',
  '.png': 'image/png',
};

/**
 * Sends a stored picture. It never changes, so the browser may keep it and asks each time whether it may still show it: whoever
 * signed out, or whose page was withdrawn, may not.
 *
 * @throws Refusal `not-found` where the row's file is missing or damaged
 */
export async function sendPicture(response: Response, files: FileStore, file: StoredFile): Promise<void> {
  response
    .set('Cache-Control', 'private, no-cache')
    .type(PICTURE_TYPES[extname(file.name)] ?? 'application/octet-stream');
  const digest = digestIn(file.name);
  if (digest !== null) {
    response.set('ETag', `"${digest.slice(0, 32)}"`);
    if (response.req.fresh) return void response.status(304).end();
  }
  response.send(await files.read(file));
}
