import type { Request } from 'express';

/** Where this server was found by whoever asks: scheme, host and port. */
export const originOf = (request: Request): string =>
  `${request.protocol}://${request.get('host') ?? 'localhost'}`;
