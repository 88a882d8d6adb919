import type { Response } from 'express';
import { onTold, tellAll } from '../relay.ts';

/* Event streams by the session that opened them: signing out ends them, and so does the end of the server. */

const streams = new Map<string, Set<Response>>();

/** @returns takes the stream out again, once it is closed */
export function addStream(sessionId: string, response: Response): () => void {
  const own = streams.get(sessionId) ?? new Set();
  streams.set(sessionId, own.add(response));
  return () => {
    own.delete(response);
    if (own.size === 0) streams.delete(sessionId);
  };
}

const ENDED = 'session ended';

/** In whatever process they are open. */
export const endStreams = (sessionId: string): void => tellAll(ENDED, sessionId);

onTold<string>(ENDED, (sessionId) => {
  for (const response of streams.get(sessionId) ?? []) response.end();
});

export function endAllStreams(): void {
  for (const responses of streams.values()) for (const response of responses) response.end();
}
