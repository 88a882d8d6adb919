import { isStorable } from '@karyotome/contract';
import type { Request } from 'express';
import { invalidField, Refusal } from '../refusal.ts';

/** The text of an uploaded file; a file that is not UTF-8 is refused, not guessed at. */
export function decodeCsv(bytes: Uint8Array): string {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw invalidField('file', 'is not UTF-8 text: save it as "CSV UTF-8" and try again', 'encoding');
  }
  if (!isStorable(text)) throw invalidField('file', 'holds characters that cannot be stored', 'text.control');
  return text;
}

export function csvOf(request: Request): Buffer {
  if (!Buffer.isBuffer(request.body)) {
    throw new Refusal('wrong-media', 'Send the file as text/csv.', [
      { field: 'file', code: 'media', message: 'must be a CSV file' },
    ]);
  }
  if (request.body.length === 0) throw invalidField('file', 'is empty', 'empty');
  return request.body;
}
