import { createHash } from 'node:crypto';
import {
  roundEntry,
  validate,
  type AlikeRecord,
  type NewRecord,
  type RoundResult,
} from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';
import { onceByKey } from '../../http/once.ts';
import { Refusal, toProblem, toRefusal } from '../../http/problems.ts';
import { catalogueOf } from '../catalogue/catalogue.service.ts';
import { recordWords } from '../records/record-words.ts';
import { addRecord, voidRecord } from '../records/records.service.ts';

/** Two of these on one day by two hands are most likely one act logged twice. */
const ASK_TWICE: readonly NewRecord['kind'][] = ['feeding', 'weight', 'shed'];

/**
 * Takes in the entries of a round, each by itself: one that is refused does not hold up the others, and one that was taken
 * before is answered as it was then. Nothing is lost by sending a queue again from its beginning.
 */
export async function takeEntries(
  work: Work,
  entries: readonly { key: string }[],
): Promise<{ results: RoundResult[] }> {
  const results: RoundResult[] = [];
  for (const entry of entries) results.push(await takeOne(work, entry));
  return { results };
}

async function takeOne(work: Work, input: { key: string }): Promise<RoundResult> {
  const { key } = input;
  const fingerprint = createHash('sha256').update('round\n').update(JSON.stringify(input)).digest('hex');
  try {
    // A savepoint of its own: what fails is undone alone.
    return await work.sequelize.transaction({ transaction: work.transaction }, async (transaction) => {
      const inner: Work = { ...work, transaction };
      const answer = await onceByKey(inner, key, fingerprint, async () => ({
        status: 200,
        body: await act(inner, input),
      }));
      return answer.body as RoundResult;
    });
  } catch (error) {
    const refusal = toRefusal(error);
    // Not the entry's fault: the device keeps it and sends it again, and the others go on.
    if (refusal.code === 'internal') {
      process.emitWarning(error as Error);
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

async function act(work: Work, input: { key: string }): Promise<RoundResult> {
  const checked = validate(roundEntry, input);
  if (!checked.ok) throw new Refusal('invalid', 'Correct the fields named below.', checked.problems);
  const entry = checked.value;
  if ('undo' in entry) return takeBack(work, entry);
  const { id } = await addRecord(work, entry.animalId, entry.record);
  return { key: entry.key, status: 'kept', id, alike: await alike(work, entry.animalId, entry.record, id) };
}

/** Takes back what an earlier entry recorded. One that was refused, or never came, leaves nothing to take back. */
async function takeBack(work: Work, { key, undo }: { key: string; undo: string }): Promise<RoundResult> {
  const [first] = await select<{ body: RoundResult | null }>(
    work,
    'select body from idempotent_writes where collection_id = :collectionId and key = :undo',
    { undo },
  );
  if (first?.body?.status === 'kept') await voidRecord(work, first.body.id, 'Undone');
  return { key, status: 'taken-back' };
}

async function alike(work: Work, animalId: string, record: NewRecord, id: string): Promise<AlikeRecord[]> {
  if (!ASK_TWICE.includes(record.kind)) return [];
  const rows = await select<{ id: string; body: Record<string, unknown>; author: string; at: Date }>(
    work,
    `select r.id, r.body, a.name as author, r.recorded_at as at from records r join accounts a on a.id = r.author_id
      where r.collection_id = :collectionId and r.animal_id = :animalId and r.kind = :kind and r.on_day = :on
        and r.voided_at is null and r.id <> :id order by r.recorded_at`,
    { animalId, kind: record.kind, on: record.on, id },
  );
  if (rows.length === 0) return [];
  const catalogue = await catalogueOf(work);
  return rows.map(({ id: other, body, author, at }) => ({
    id: other,
    text: recordWords(record.kind, body, catalogue),
    author,
    at: new Date(at).toISOString(),
  }));
}
