import { ROUTES } from '@karyotome/contract';
import type { Request } from 'express';
import type { Actor, Database } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { addStream } from '../../http/event-streams.ts';
import { onChanged, onNotice, type Change } from '../../domain/changes/notify.ts';
import { actorById, tokenStream } from '../../domain/accounts/access-tokens.ts';
import { findActor } from '../../domain/accounts/session.service.ts';

/*
 * Tells whoever watches a collection that something in it changed, so that pages read themselves anew. Within one process;
 * nothing but the fact is sent.
 */

/** A line now and then keeps proxies from closing a quiet connection. */
const KEEP_ALIVE_MS = 25_000;

export function changeRoutes({ answer }: Endpoints, database: Database): void {
  answer(ROUTES.changes, (request, response, actor) => {
    const { collectionId, tokenId } = actor;
    const entry = tokenId === undefined ? request.sessionID : tokenStream(tokenId);
    // No compression: it would hold lines back.
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store, no-transform',
    });
    response.write(': watching\n\n');
    const page = typeof request.query['page'] === 'string' ? request.query['page'] : null;
    const sendChange = ({ page: by, ...event }: Change): void => {
      // Whoever changed it reads anew by itself.
      if (by !== null && by === page) return;
      response.write(`event: change\ndata: ${JSON.stringify(event)}\n\n`);
    };
    const beat = setInterval(() => {
      void mayStillWatch(request, database, actor).then((is) =>
        is ? response.write(':\n\n') : response.end(),
      );
    }, KEEP_ALIVE_MS);
    beat.unref();
    const unsubscribe = onChanged(collectionId, sendChange);
    const stopNotices = onNotice(collectionId, (notice) => {
      response.write(`event: notice\ndata: ${JSON.stringify(notice)}\n\n`);
    });
    const removeStream = addStream(entry, response);
    response.on('close', () => {
      clearInterval(beat);
      unsubscribe();
      stopNotices();
      removeStream();
    });
  });
}

/** Whether the session or token and the membership still stand; a stream was let in long ago. */
async function mayStillWatch(
  request: Request,
  database: Database,
  { accountId, collectionId, tokenId }: Actor,
): Promise<boolean> {
  // While the database is away nobody can tell: the stream goes on.
  if (tokenId !== undefined) return (await actorById(database, tokenId).catch(() => true)) !== null;
  const isOpen = await new Promise<boolean>((resolve) =>
    request.sessionStore.get(request.sessionID, (error, kept) => resolve(!error && kept != null)),
  );
  return isOpen && (await findActor(database, accountId, collectionId).catch(() => true)) !== null;
}
