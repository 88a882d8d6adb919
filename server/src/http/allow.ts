import type { Permission } from '@karyotome/contract';
import type { Request } from 'express';
import { requirePermission } from '../access/policy.ts';
import type { Actor } from '../db/work.ts';
import { Refusal } from '../refusal.ts';

/* Who asks, and whether they may. */

declare module 'express-session' {
  interface SessionData {
    accountId: string;
    collectionId: string;
    /** RFC 3339. */
    signedInAt: string;
    /** What the browser called itself then. */
    userAgent: string | undefined;
  }
}

declare module 'express-serve-static-core' {
  interface Request {
    actor?: Actor;
    /** SHA-256 of the body's bytes, where there was one. */
    bodyDigest?: string;
  }
}

export function actorOf(request: Request): Actor {
  if (!request.actor) throw new Refusal('not-signed-in', 'The session has ended or never began.');
  return request.actor;
}

/** Names whose page sent a write: signed in as somebody else since, the browser would send it under another name. */
const ACCOUNT_HEADER = 'Account-Id';
/** Names the collection whose page sent a write: in another window, the same person may have gone to another one since. */
const COLLECTION_HEADER = 'Collection-Id';
/** The check that every request in a session passes, whether it asks for JSON, a file, a stream or events. */
export function allow(request: Request, permission: Permission): Actor {
  const actor = actorOf(request);
  const meant = request.get(ACCOUNT_HEADER);
  if (meant !== undefined && meant !== actor.accountId)
    throw new Refusal(
      'other-account',
      'Somebody else has signed in here since this was written. Nothing was sent under their name.',
    );
  const meantFor = request.get(COLLECTION_HEADER);
  if (meantFor !== undefined && meantFor !== actor.collectionId)
    throw new Refusal(
      'other-collection',
      'This browser has gone to another collection since this was written. Nothing was sent to that one.',
    );
  requirePermission(actor, permission, request.method === 'GET');
  return actor;
}
