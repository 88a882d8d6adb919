import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { Request, Response } from 'express';
import { createCache } from '../../cache.ts';

const compress = promisify(gzip);

/** A page as it is sent: made once, and sent until what it shows has changed. */
export interface MadePage {
  readonly revision: string;
  readonly status: number;
  readonly type: string;
  readonly bytes: Buffer;
  readonly zipped: Buffer;
  readonly etag: string;
}

interface Kept {
  readonly page: Promise<MadePage>;
  /** When it was last asked whether it still holds, milliseconds since 1970. */
  checkedAt: number;
}

const MAX_PAGES = 2_000;
/** A page may be so much older than what it shows; whoever asks meanwhile costs the database nothing. */
const TRUSTED_MS = 1_000;

/** Pages by address, language and host; each asks at most once a second whether it still holds. */
export function createPageCache(now: () => number = Date.now) {
  const kept = createCache<Kept>(MAX_PAGES);
  /**
   * @param find - one short question: what the page is of, with its revision
   * @param make - where the revision is another one than before; with the revision of what it was made from
   */
  return async <Found extends { readonly revision: string }>(
    key: string,
    find: () => Promise<Found>,
    make: (found: Found) => Promise<Omit<MadePage, 'zipped' | 'etag'>>,
  ): Promise<MadePage> => {
    const known = kept.get(key);
    if (known && now() - known.checkedAt < TRUSTED_MS) return known.page;
    // Others who ask meanwhile are sent what is known.
    if (known) known.checkedAt = now();
    try {
      const found = await find();
      if (known && (await known.page).revision === found.revision) return await known.page;
      const page = make(found).then(finish);
      kept.set(key, { page, checkedAt: now() });
      return await page;
    } catch (error) {
      kept.delete(key);
      throw error;
    }
  };
}
export type PageCache = ReturnType<typeof createPageCache>;

async function finish(made: Omit<MadePage, 'zipped' | 'etag'>): Promise<MadePage> {
  const etag = `"${createHash('sha256').update(made.bytes).digest('base64url').slice(0, 27)}"`;
  return { ...made, etag, zipped: await compress(made.bytes) };
}

/** Sends a page, compressed where the browser takes that; nothing where it has it already. */
export function sendPage(request: Request, response: Response, page: MadePage): void {
  response
    .status(page.status)
    .set('Cache-Control', 'public, no-cache')
    .set('ETag', page.etag)
    .set('Vary', 'Accept-Encoding, Accept-Language')
    .type(page.type);
  if (page.status === 200 && request.fresh) {
    response.status(304).end();
    return;
  }
  if (request.acceptsEncodings('gzip')) response.set('Content-Encoding', 'gzip').end(page.zipped);
  else response.end(page.bytes);
}
