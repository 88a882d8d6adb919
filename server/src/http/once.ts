import type { Actor, Work } from '../db/work.ts';
import { Refusal } from '../refusal.ts';

export interface Answer {
  readonly status: number;
  readonly body?: unknown;
}

/** Instead of a fingerprint: what the key names was taken back before it came. */
const TAKEN_BACK = 'taken back before it came';

/**
 * Runs a write once per key and person: a repetition is answered from the first one's record. The same key with another
 * fingerprint is refused; one that was taken back before it came is answered with that.
 */
export async function onceByKey(
  work: Work<Actor>,
  key: string,
  fingerprint: string,
  run: () => Promise<Answer>,
): Promise<Answer> {
  const { collectionId, accountId } = work.actor;
  const first = await answerOf(work, key);
  if (first) {
    if (first.fingerprint !== fingerprint && first.fingerprint !== TAKEN_BACK)
      throw new Refusal('key-reused', 'Use a new key for a new request.');
    return first.body === null ? { status: first.status } : { status: first.status, body: first.body };
  }
  // Where somebody else takes the key meanwhile, the database refuses it to one of the two, who begins again.
  const answer = await run();
  await work.models.idempotentWrites.create(
    { collectionId, accountId, key, fingerprint, status: answer.status, body: answer.body ?? null },
    { transaction: work.transaction },
  );
  return answer;
}

/** How a person's write with a key was answered; null where it has not come. */
export async function answerOf(
  work: Work<Actor>,
  key: string,
): Promise<{ fingerprint: string; status: number; body: unknown } | null> {
  const { collectionId, accountId } = work.actor;
  const row = await work.models.idempotentWrites.findOne({
    where: { collectionId, accountId, key },
    transaction: work.transaction,
  });
  return row?.get() ?? null;
}

/** Of these keys, those that were answered or taken back before. */
export async function answeredKeys(work: Work<Actor>, keys: readonly string[]): Promise<Set<string>> {
  const { collectionId, accountId } = work.actor;
  const rows = await work.models.idempotentWrites.findAll({
    attributes: ['key'],
    where: { collectionId, accountId, key: [...keys] },
    transaction: work.transaction,
  });
  return new Set(rows.map((row) => row.get().key));
}

/** Keeps the answers of writes that were done together. */
export async function keepAnswers(
  work: Work<Actor>,
  answers: readonly { readonly key: string; readonly fingerprint: string; readonly answer: Answer }[],
): Promise<void> {
  const { collectionId, accountId } = work.actor;
  await work.models.idempotentWrites.bulkCreate(
    answers.map(({ key, fingerprint, answer: { status, body = null } }) => ({
      collectionId,
      accountId,
      key,
      fingerprint,
      status,
      body,
    })),
    { transaction: work.transaction },
  );
}

/** Answers a write that has not come yet, and may still be on its way, as one that was taken back. */
export async function takeBackBeforeItComes(work: Work<Actor>, key: string, answer: Answer): Promise<void> {
  const { collectionId, accountId } = work.actor;
  await work.models.idempotentWrites.create(
    {
      collectionId,
      accountId,
      key,
      fingerprint: TAKEN_BACK,
      status: answer.status,
      body: answer.body ?? null,
    },
    { transaction: work.transaction },
  );
}
