import { createHash } from 'node:crypto';
import {
  roundEntry,
  toStorable,
  validate,
  type AlikeRecord,
  type NewRecord,
  type RecordFact,
  type RoundEntry,
  type RoundResult,
} from '@karyotome/contract';
import { nowMs } from '../../clock.ts';
import { isToBeDoneAgain } from '../../db/faults.ts';
import { type Actor, type Work } from '../../db/work.ts';
import { BeginAgain } from '../../db/begin-again.ts';
import { answerOf, onceByKey, takeBackBeforeItComes } from '../../http/once.ts';
import { PROBLEMS, toProblem, toRefusal } from '../../http/problems.ts';
import { Refusal } from '../../refusal.ts';
import { insertRecord } from '../../domain/records/insert-record.ts';
import { voidRecord } from '../../domain/records/records.service.ts';
import { recordsOfDay, standingRecord } from './rounds.queries.ts';

/** Two of these on one day by two hands are most likely one act logged twice. */
const ASK_TWICE: readonly NewRecord['kind'][] = ['feeding', 'weight', 'shed'];

/**
 * Takes in the entries of a round, each by itself: one that is refused does not hold up the others, and one that was taken
 * before is answered as it was then. Nothing is lost by sending a queue again from its beginning.
 *
 * @param account - whose entries they are, as the device has it; they never come in under another name
 */
export async function takeEntries(
  work: Work<Actor>,
  { entries, accountId }: { entries: readonly unknown[]; accountId?: string | null | undefined },
): Promise<{ results: RoundResult[] }> {
  if (accountId && accountId !== work.actor.accountId)
    throw new Refusal(
      'other-account',
      'These entries were made by somebody else. They wait on the device until that person signs in.',
    );
  const results: RoundResult[] = [];
  for (const entry of entries) results.push(await takeOne(work, entry));
  return { results };
}

async function takeOne(work: Work<Actor>, input: unknown): Promise<RoundResult> {
  const key = keyOf(input);
  try {
    const checked = validate(roundEntry, input, { today: work.today, nowMs: nowMs() });
    if (!checked.ok) throw new Refusal('invalid', 'Correct the fields named below.', checked.problems);
    const entry = checked.value;
    const fingerprint = createHash('sha256').update('round\n').update(JSON.stringify(entry)).digest('hex');
    // A savepoint of its own: what fails is undone alone.
    return await work.sequelize.transaction({ transaction: work.transaction }, async (transaction) => {
      const inner: Work<Actor> = { ...work, transaction };
      const answer = await onceByKey(inner, key, fingerprint, async () => ({
        status: 200,
        body: await act(inner, entry),
      }));
      return answer.body as RoundResult;
    });
  } catch (error) {
    const refusal = toRefusal(error);
    // The whole has to be done again, or cannot be done now: that is no answer to this entry.
    if (error instanceof BeginAgain || PROBLEMS[refusal.code].status === 503 || isToBeDoneAgain(error))
      throw error;
    // Not the entry's fault: the device keeps it and sends it again, and the others go on.
    if (refusal.code === 'internal') {
      work.onFault(error);
      return { key, status: 'failed' };
    }
    const { title, detail, errors } = toProblem(refusal);
    return {
      key,
      status: 'refused',
      problem: { title, ...(detail ? { detail } : {}), errors: [...(errors ?? [])] },
    };
  }
}

/** The key as it can be sent back and kept; whatever else it was, the entry is refused. */
function keyOf(input: unknown): string {
  const key = typeof input === 'object' && input !== null ? (input as { key?: unknown }).key : undefined;
  return typeof key === 'string' ? toStorable(key).slice(0, 100) : '';
}

async function act(work: Work<Actor>, entry: RoundEntry): Promise<RoundResult> {
  if ('undo' in entry) return takeBack(work, entry);
  const { id } = await insertRecord(work, entry.animalId, entry.record);
  return { key: entry.key, status: 'kept', id, alike: await alike(work, entry.animalId, entry.record, id) };
}

/**
 * Takes back what an earlier entry recorded. One that was refused leaves nothing to take back; one that has not come yet may
 * still be on its way, and is answered as taken back when it comes.
 */
async function takeBack(
  work: Work<Actor>,
  { key, undo }: { key: string; undo: string },
): Promise<RoundResult> {
  const first = await answerOf(work, undo);
  const result = first?.body as RoundResult | null | undefined;
  if (!first)
    await takeBackBeforeItComes(work, undo, { status: 200, body: { key: undo, status: 'taken-back' } });
  else if (result?.status === 'kept') await voidIfStanding(work, result.id);
  return { key, status: 'taken-back' };
}

/** Somebody may have voided it by hand meanwhile: it is gone, as was wanted. */
async function voidIfStanding(work: Work<Actor>, id: string): Promise<void> {
  const [standing] = await standingRecord(work, { id });
  if (standing) await voidRecord(work, id, 'Undone');
}

async function alike(work: Work, animalId: string, record: NewRecord, id: string): Promise<AlikeRecord[]> {
  if (!ASK_TWICE.includes(record.kind)) return [];
  const rows = await recordsOfDay(work, { animalId, kind: record.kind, on: record.on, id });
  return rows.map(({ id: other, body, author, at }) => ({
    id: other,
    record: { kind: record.kind, body } as RecordFact,
    author,
    at: new Date(at).toISOString(),
  }));
}
