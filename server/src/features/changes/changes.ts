import { ROUTES } from '@karyotome/contract';
import type { Request, Response } from 'express';
import type { Database } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { onChanged, onNotice } from './notify.ts';
import { findActor } from '../session/session.service.ts';

/*
 * Tells whoever watches a collection that something in it changed, so that pages read themselves anew. Within one process;
 * nothing but the fact is sent.
 */

/** A line now and then keeps proxies from closing a quiet connection. */
const KEEP_ALIVE_MS = 25_000;

/** Streams by the session that opened them: signing out ends them. */
const streams = new Map<string, Set<Response>>();

/** Ends what a session watches. */
export function endStreams(sessionId: string): void {
  for (const response of streams.get(sessionId) ?? []) response.end();
}

/** Ends every stream: the server stops. */
export function endAllStreams(): void {
  for (const responses of streams.values()) for (const response of responses) response.end();
}

export function changeRoutes({ answer }: Endpoints, database: Database): void {
  answer(ROUTES.changes, (request, response, { accountId, collectionId }) => {
    const { sessionID } = request;
    // No compression: it would hold lines back.
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store, no-transform',
    });
    response.write(': watching\n\n');
    const sendChange = (): void => void response.write('event: change\ndata: 1\n\n');
    const beat = setInterval(() => {
      void isStillMember(request, database, accountId, collectionId).then((is) =>
        is ? response.write(':\n\n') : response.end(),
      );
    }, KEEP_ALIVE_MS);
    beat.unref();
    const unsubscribe = onChanged(collectionId, sendChange);
    const stopNotices = onNotice(collectionId, (notice) => {
      response.write(`event: notice\ndata: ${JSON.stringify(notice)}\n\n`);
    });
    const own = streams.get(sessionID) ?? new Set();
    streams.set(sessionID, own.add(response));
    response.on('close', () => {
      clearInterval(beat);
      unsubscribe();
      stopNotices();
      own.delete(response);
      if (own.size === 0) streams.delete(sessionID);
    });
  });
}

/** Whether the session and the membership still stand; a stream was let in long ago. */
async function isStillMember(
  request: Request,
  database: Database,
  accountId: string,
  collectionId: string,
): Promise<boolean> {
  const isOpen = await new Promise<boolean>((resolve) =>
    request.sessionStore.get(request.sessionID, (error, kept) => resolve(!error && kept != null)),
  );
  // While the database is away nobody can tell: the stream goes on.
  return isOpen && (await findActor(database, accountId, collectionId).catch(() => true)) !== null;
}
