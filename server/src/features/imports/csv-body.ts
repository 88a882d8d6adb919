import express, { type Request } from 'express';
import { invalidField, Refusal } from '../../http/problems.ts';

/** Takes a CSV file as it is, unread. */
export const readCsvBody = express.raw({ type: ['text/csv', 'application/vnd.ms-excel'], limit: '4mb' });

/** The text of an uploaded file; a file that is not UTF-8 is refused, not guessed at. */
export function decodeCsv(bytes: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw invalidField('file', 'is not UTF-8 text: save it as "CSV UTF-8" and try again', 'encoding');
  }
}

export function csvOf(request: Request): string {
  if (!Buffer.isBuffer(request.body)) {
    throw new Refusal('wrong-media', 'Send the file as text/csv.', [
      { field: 'file', code: 'media', message: 'must be a CSV file' },
    ]);
  }
  if (request.body.length === 0) throw invalidField('file', 'is empty', 'empty');
  return decodeCsv(request.body);
}
