import { createHash, createHmac, timingSafeEqual } from 'node:crypto';
import { readId } from '@karyotome/contract';

/*
 * Codes that let somebody in, of which nothing secret is kept: each is an id and what the server's own secret makes of it. What
 * the database holds lets nobody in; who is let in is decided by the row of that id.
 */

type Purpose = 'invitation' | 'access token' | 'calendar address' | 'opinion link';

/** @returns `<id>.<HMAC-SHA-256 of the purpose and the id, base64url>` */
export const codeFor = (purpose: Purpose, id: string, secret: string): string =>
  `${id}.${createHmac('sha256', secret).update(`${purpose} ${id}`).digest('base64url')}`;

/** @returns the id, or null where the code was not made here for this purpose */
export function idInCode(purpose: Purpose, code: string, secret: string): string | null {
  const id = readId(code.split('.')[0]!);
  if (id === null) return null;
  return isSame(code, codeFor(purpose, id, secret)) ? id : null;
}

/** Compares what was given with what was made here; how long it takes does not tell how much of it fits. */
export function isSame(given: string, made: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(made)];
  return a.length === b.length && timingSafeEqual(a, b);
}

/** What is kept of a secret in an address: it cannot be turned back into it. */
export const digestOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
