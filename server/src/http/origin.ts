import type { Request } from 'express';

/** Where this server was found by whoever asks: scheme, host and port, as a trusted proxy says where there is one. */
export const originOf = (request: Request): string => `${request.protocol}://${request.host || 'localhost'}`;

/** The same as authenticators tell sites apart: whole, and the host alone. */
export const siteOf = (request: Request): { readonly origin: string; readonly id: string } => ({
  origin: originOf(request),
  id: request.hostname || 'localhost',
});
