import { createHash } from 'node:crypto';
import type { RequestHandler, Response } from 'express';
import helmet from 'helmet';

type Policy = NonNullable<Parameters<typeof helmet.contentSecurityPolicy>[0]>;
type Directives = NonNullable<Policy['directives']>;

type Source = string | ((request: unknown, response: unknown) => string);

/** Content Security Policy Level 3: nothing foreign, nothing inline. @param styles - sources of styles beside our own files */
const directives = (...styles: Source[]): Directives => ({
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'"],
  styleSrc: ["'self'", ...styles],
  imgSrc: ["'self'", 'data:', 'blob:'],
  fontSrc: ["'self'", 'data:'],
  connectSrc: ["'self'"],
  workerSrc: ["'self'"],
  objectSrc: ["'none'"],
  baseUri: ["'none'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
});

/** What every answer tells the browser about itself. */
export function securityHeaders({ behindTls }: { readonly behindTls: boolean }): RequestHandler {
  return helmet({
    strictTransportSecurity: behindTls,
    contentSecurityPolicy: { useDefaults: false, directives: directives() },
  });
}

/** For the answer that is the application's page: the one element of styles that carries its nonce is applied as well. */
export const stylesByNonce: RequestHandler = helmet.contentSecurityPolicy({
  useDefaults: false,
  directives: directives((_request, response) => `'nonce-${String((response as Response).locals['nonce'])}'`),
});

/** For answers that are pages with one element of styles in them, always the same: it is known by its digest. */
export const stylesByDigest = (css: string): RequestHandler =>
  helmet.contentSecurityPolicy({
    useDefaults: false,
    directives: directives(`'sha256-${createHash('sha256').update(css).digest('base64')}'`),
  });
