import type { QueuedEntry } from './queued-entry.ts';

/**
 * Entries that the device's database has not written through yet. The screen goes on to the next tub at once, and a page that is
 * reloaded or closed in that moment ends its database's transactions unfinished: what is noted here, at once, outlives it.
 */
const PREFIX = 'karyotome.round.entering.';

/** Notes an entry until {@link entered}. A photograph is not text: the screen waits until the database has it. */
export function entering(entry: QueuedEntry): void {
  if (entry.photo) return;
  try {
    localStorage.setItem(PREFIX + entry.key, JSON.stringify(entry));
  } catch {
    // The storage is full or forbidden: the database is written all the same.
  }
}

/** The database has it. */
export function entered(key: string): void {
  localStorage.removeItem(PREFIX + key);
}

/** What a page noted and did not live to write, oldest first. */
export function unwritten(accountId: string): QueuedEntry[] {
  return Object.keys(localStorage)
    .filter((name) => name.startsWith(PREFIX))
    .map((name) => JSON.parse(localStorage.getItem(name)!) as QueuedEntry)
    .filter((entry) => entry.accountId === accountId)
    .sort((a, b) => a.at.localeCompare(b.at));
}
