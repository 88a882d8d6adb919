import type { IncomingMessage } from 'node:http';
import { forLog } from '../db/faults.ts';

/* What a log may hold of a request: neither a secret address, nor who somebody is, nor what they typed. */

/** Addresses whose last part is a secret, or names what somebody may look at. */
const SECRET = /^(\/api\/v1\/(?:calendar|opinion-links|public)\/)[^/?]+|^(\/(?:opinion|p|h)\/)[^/?]+/;

export function withoutSecret(url: string): string {
  const [path = ''] = url.split('?');
  return path.replace(SECRET, (_, api?: string, page?: string) => `${api ?? page ?? ''}…`);
}

/** For pino-http, in the place of its own. */
export const withoutSecrets = {
  req: (request: IncomingMessage & { id?: unknown; url?: string }) => ({
    id: request.id,
    method: request.method,
    url: withoutSecret(request.url ?? ''),
  }),
  res: (response: { statusCode: number }) => ({ statusCode: response.statusCode }),
  err: forLog,
};
