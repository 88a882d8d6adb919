import type { Work } from './db/work.ts';

/*
 * Work that nobody waits for: what was found out while a question was answered is stored, what changed is computed anew.
 * None of it is lost where it does not happen, it is only done later.
 */

const running = new Set<Promise<void>>();

/** Runs it without anybody waiting. @param onFault - told of what went wrong */
export function inBackground(run: () => Promise<unknown>, onFault: (error: unknown) => void): void {
  const work = run()
    .then(() => undefined, onFault)
    .finally(() => running.delete(work));
  running.add(work);
}

/**
 * Stores what was found out in a unit of work that reads, which writes nothing itself: when it has ended. What was found out
 * in one that writes may rest on what is rolled back yet, and is not stored.
 */
export function storeAfterRead(work: Work, store: () => Promise<void>): void {
  if (!work.isWriting) work.transaction.afterCommit(() => inBackground(store, work.onFault));
}

/** Waits until all of it has ended: before the database is closed. */
export async function backgroundEnded(): Promise<void> {
  while (running.size > 0) await Promise.all(running);
}
