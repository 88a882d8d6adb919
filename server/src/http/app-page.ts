import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RequestHandler } from 'express';
import { stylesByNonce } from './security-headers.ts';

/** Where the build leaves room for the nonce: `html.cspNonce` of `web/vite.config.ts`. */
const PLACE = '{{nonce}}';

/**
 * Answers with the page of the application. The interface library makes one element of styles while it runs: it carries a nonce
 * that is made for this answer, under which the policy lets it be applied.
 *
 * @param webDir - the built interface
 */
export function appPage(webDir: string): RequestHandler[] {
  const parts = readFileSync(join(webDir, 'index.html'), 'utf8').split(PLACE);
  return [
    (_request, response, next) => {
      response.locals['nonce'] = randomBytes(16).toString('base64');
      next();
    },
    stylesByNonce,
    (_request, response) => {
      response
        .set('Cache-Control', 'no-cache')
        .type('html')
        .send(parts.join(String(response.locals['nonce'])));
    },
  ];
}
