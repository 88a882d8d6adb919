import { select, type Work } from '../../db/work.ts';

/** Holds an address until the transaction ends: whoever makes another collection of the same name waits for it. */
export function lockPageName(work: Work, pageName: string): Promise<object[]> {
  return select(work, 'select pg_advisory_xact_lock(hashtextextended(:pageName, 0))', { pageName });
}
