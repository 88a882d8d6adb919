import type { Transaction } from 'sequelize';
import type { Work } from './work.ts';

const found = new WeakMap<Transaction, Map<string, Promise<unknown>>>();

/**
 * Reads something once in a unit of work that reads: it sees one moment, so the second answer would be the first. A unit of
 * work that writes reads anew each time.
 *
 * @param key - what is read, with all that it depends on besides the collection
 */
export function oncePerRead<T>(work: Work, key: string, read: () => Promise<T>): Promise<T> {
  if (work.isWriting) return read();
  const known = found.get(work.transaction) ?? new Map<string, Promise<unknown>>();
  found.set(work.transaction, known);
  const before = known.get(key);
  if (before) return before as Promise<T>;
  const answer = read();
  known.set(key, answer);
  return answer;
}
