import { select, type Work } from '../db/work.ts';
import { Refusal } from './problems.ts';

export interface Answer {
  readonly status: number;
  readonly body?: unknown;
}

/**
 * Runs a write once per key: a repetition is answered from the first one's record. The same key with another fingerprint is
 * refused.
 */
export async function onceByKey(
  work: Work,
  key: string,
  fingerprint: string,
  run: () => Promise<Answer>,
): Promise<Answer> {
  const { collectionId } = work.actor;
  // The row is taken before the write runs: a second request with the key waits here until the first has ended.
  const taken = await select<{ key: string }>(
    work,
    `insert into idempotent_writes (collection_id, key, fingerprint)
     values (:collectionId, :key, :fingerprint) on conflict do nothing returning key`,
    { key, fingerprint },
  );
  if (taken.length > 0) {
    const answer = await run();
    await work.models.idempotentWrites.update(
      { status: answer.status, body: answer.body ?? null },
      { where: { collectionId, key }, transaction: work.transaction },
    );
    return answer;
  }
  const [first] = await select<{ fingerprint: string; status: number; body: unknown }>(
    work,
    'select fingerprint, status, body from idempotent_writes where collection_id = :collectionId and key = :key',
    { key },
  );
  if (first?.fingerprint !== fingerprint) throw new Refusal('key-reused', 'Use a new key for a new request.');
  return first.body === null ? { status: first.status } : { status: first.status, body: first.body };
}
