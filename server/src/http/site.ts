import type { Request } from 'express';

/** The address at which the browser sees this server: a trusted proxy says it where there is one. */
export const siteOf = (request: Request): { readonly origin: string; readonly id: string } => ({
  origin: `${request.protocol}://${request.host}`,
  id: request.hostname,
});
