import type { Response } from 'express';
import { onTold, tellAll } from '../relay.ts';

/* Event streams by the session or token that opened them: its end ends them, and so does the end of the server. */

const streams = new Map<string, Set<Response>>();

/** @returns takes the stream out again, once it is closed */
export function addStream(entry: string, response: Response): () => void {
  const own = streams.get(entry) ?? new Set();
  streams.set(entry, own.add(response));
  return () => {
    own.delete(response);
    if (own.size === 0) streams.delete(entry);
  };
}

const ENDED = 'session ended';

/** In whatever process they are open. */
export const endStreams = (entry: string): void => tellAll(ENDED, entry);

onTold<string>(ENDED, (entry) => {
  for (const response of streams.get(entry) ?? []) response.end();
});

export function endAllStreams(): void {
  for (const responses of streams.values()) for (const response of responses) response.end();
}
