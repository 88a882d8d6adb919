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
  const [given, made] = [code, codeFor(purpose, id, secret)].map((text) => Buffer.from(text));
  return given!.length === made!.length && timingSafeEqual(given!, made!) ? id : null;
}

/** What is kept of a secret in an address: it cannot be turned back into it. */
export const digestOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
