import { EventEmitter } from 'node:events';
import { Router, type Request, type Response } from 'express';
import { actorOf } from '../../http/endpoint.ts';

/*
 * Tells whoever watches a collection that something in it changed, so that pages read themselves anew. Within one process;
 * nothing but the fact is sent.
 */

const changes = new EventEmitter().setMaxListeners(0);

/** To be called after the change is committed. */
export function tellChanged(collectionId: string): void {
  changes.emit(collectionId);
}

/** A line now and then keeps proxies from closing a quiet connection. */
const KEEP_ALIVE_MS = 25_000;

export function changeRoutes(): Router {
  const router = Router();
  router.get('/changes', (request: Request, response: Response) => {
    const { collectionId } = actorOf(request);
    // No compression: it would hold lines back.
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-cache, no-transform',
    });
    response.write(': watching\n\n');
    const tell = (): void => void response.write('event: change\ndata: 1\n\n');
    const beat = setInterval(() => response.write(':\n\n'), KEEP_ALIVE_MS);
    beat.unref();
    changes.on(collectionId, tell);
    response.on('close', () => {
      clearInterval(beat);
      changes.off(collectionId, tell);
    });
  });
  return router;
}
