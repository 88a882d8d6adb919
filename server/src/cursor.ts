import { invalidField } from './refusal.ts';

/* Where a page of a list ended, as an address carries it: opaque to whoever asks. */

export type CursorPart = 'number' | 'string';

/** A cursor as an address carries it. */
export const cursorText = (cursor: readonly (string | number)[]): string =>
  Buffer.from(JSON.stringify(cursor)).toString('base64url');

/**
 * Reads a cursor.
 *
 * @param types - of its parts, in order
 * @throws Refusal `invalid` for one that is not of this list
 */
export function readCursor(text: string, types: readonly CursorPart[]): (number | string)[] {
  const refused = invalidField('after', 'is no cursor of this list');
  let cursor: unknown;
  try {
    cursor = JSON.parse(Buffer.from(text, 'base64url').toString('utf8'));
  } catch {
    throw refused;
  }
  if (!Array.isArray(cursor) || cursor.length !== types.length) throw refused;
  if (cursor.some((part, i) => typeof part !== types[i])) throw refused;
  return cursor as (number | string)[];
}
