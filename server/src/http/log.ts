import type { IncomingMessage, ServerResponse } from 'node:http';
import { ROUTES, type Route } from '@karyotome/contract';
import type { Request } from 'express';
import { forLog } from '../db/faults.ts';

/*
 * What a log may hold of a request: neither a secret address, nor what somebody is called, nor what they typed. One line a
 * request, with the id of the request and of the account.
 */

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

/**
 * Who gets in, who may do what, what is taken out and what is deleted: the log names the act, so that it can be looked for
 * without knowing addresses.
 */
function isSecurityAct([name, { method, permission, path }]: readonly [string, Route]): boolean {
  if (name.startsWith('export') || path.endsWith('.csv')) return true;
  if (method === 'get') return false;
  return method === 'delete' || ['open', 'own', 'manage', 'destroy'].includes(permission);
}

const SECURITY_ACTS: ReadonlyMap<string, string> = new Map(
  Object.entries<Route>(ROUTES)
    .filter(isSecurityAct)
    .map(([name, { method, path }]) => [`${method} ${path}`, name]),
);

/** The act of a security event; undefined for any other request. */
function actOf(request: Request): string | undefined {
  // Known once a route of the API has taken it.
  const path = (request.route as { path?: unknown } | undefined)?.path;
  return typeof path === 'string' ? SECURITY_ACTS.get(`${request.method.toLowerCase()} ${path}`) : undefined;
}

/** For pino-http: who asked, once that is known, and what a security event is. */
export function whoAndWhat(request: IncomingMessage): {
  account?: string | undefined;
  act?: string | undefined;
} {
  const asked = request as Request;
  return { account: asked.actor?.accountId, act: actOf(asked) };
}

const REFUSED: ReadonlySet<number> = new Set([401, 403, 429]);

/**
 * For pino-http: security events, and what was refused for who asked or for asking too often, stand at the level that is logged
 * where nothing is set.
 */
export function levelOf(
  request: IncomingMessage,
  { statusCode }: ServerResponse,
  error?: Error,
): 'error' | 'warn' | 'info' {
  if (error || statusCode >= 500) return 'error';
  return REFUSED.has(statusCode) || actOf(request as Request) !== undefined ? 'warn' : 'info';
}
