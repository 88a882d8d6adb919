import type { RequestHandler } from 'express';
import type { Logger } from 'pino';

/** Tells once that a proxy passes requests on whose word is not taken: then all who come by it count as one address. */
export function warnOfUnnamedProxy(logger: Logger): RequestHandler {
  let isTold = false;
  return (request, _response, next) => {
    // Express gives the addresses that trusted proxies told; none where the next one is not trusted.
    if (!isTold && request.get('X-Forwarded-For') !== undefined && request.ips.length === 0) {
      isTold = true;
      logger.warn(
        { from: request.socket.remoteAddress },
        'a proxy passes requests on that TRUSTED_PROXIES does not name: all who come by it count as one address',
      );
    }
    next();
  };
}
