import type { QueuedEntry } from './queued-entry.ts';

/** Place of the first photograph among entries, which goes by itself; their number where there is none. */
export const firstPhoto = (chunk: readonly QueuedEntry[]): number => {
  const at = chunk.findIndex(({ photo }) => photo !== null);
  return at === -1 ? chunk.length : at;
};
