import { createHash } from 'node:crypto';
import {
  grantForRecord,
  roundEntry,
  toStorable,
  validate,
  type AlikeRecord,
  type NewRecord,
  type RecordFact,
  type RoundEntry,
  type RoundResult,
  type Validated,
} from '@karyotome/contract';
import { requirePermission } from '../../access/policy.ts';
import { nowMs } from '../../clock.ts';
import { isToBeDoneAgain } from '../../db/faults.ts';
import { type Actor, type Work } from '../../db/work.ts';
import { BeginAgain } from '../../db/begin-again.ts';
import { answeredKeys, answerOf, keepAnswers, onceByKey, takeBackBeforeItComes } from '../../http/once.ts';
import { PROBLEMS, toProblem, toRefusal } from '../../http/problems.ts';
import { Refusal } from '../../refusal.ts';
import { insertPlain, isPlain } from '../../domain/records/insert-plain.ts';
import { insertRecord } from '../../domain/records/insert-record.ts';
import { voidRecord } from '../../domain/records/records.service.ts';
import { groupBy } from '../../group-by.ts';
import { recordsAlike, standingRecord, type AlikeRow } from './rounds.queries.ts';

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
  for (const run of runsOf(work, entries)) {
    const together = await takeTogether(work, run);
    for (const sent of run) results.push(together.get(sent.key) ?? (await takeOne(work, sent)));
  }
  return { results };
}

/** An entry with its key as it came; as it was read; and where it touches nothing but its animal, that. */
interface Sent {
  readonly key: string;
  readonly checked: Validated<RoundEntry>;
  readonly plain: { readonly key: string; readonly animalId: string; readonly record: NewRecord } | null;
}

/** Entries in their order, those that can be written together beside one another. */
function runsOf(work: Work, entries: readonly unknown[]): Sent[][] {
  const runs: Sent[][] = [];
  for (const input of entries) {
    const checked = validate(roundEntry, input, { today: work.today, nowMs: nowMs() });
    const plain =
      checked.ok && 'record' in checked.value && isPlain(checked.value.record.kind) ? checked.value : null;
    const sent = { key: keyOf(input), checked, plain };
    const last = runs.at(-1);
    if (plain && last?.at(-1)?.plain) last.push(sent);
    else runs.push([sent]);
  }
  return runs;
}

/** Takes in what can be written together; the rest, and what is refused, is left to be taken in by itself. */
async function takeTogether(work: Work<Actor>, run: readonly Sent[]): Promise<Map<string, RoundResult>> {
  try {
    return await work.sequelize.transaction({ transaction: work.transaction }, (transaction) =>
      writeTogether({ ...work, transaction }, run),
    );
  } catch (error) {
    if (mustBeginAgain(error)) throw error;
    // One of them is at fault: taken in alone, each has its own answer.
    return new Map();
  }
}

async function writeTogether(work: Work<Actor>, run: readonly Sent[]): Promise<Map<string, RoundResult>> {
  const plain = run.flatMap((sent) => sent.plain ?? []);
  if (plain.length < 2) return new Map();
  const answered = await answeredKeys(
    work,
    plain.map(({ key }) => key),
  );
  const fresh = plain.filter(({ key }) => !answered.has(key));
  if (fresh.length === 0) return new Map();
  const ids = await insertPlain(work, fresh);
  const written = fresh.flatMap((entry, i) => (ids[i] == null ? [] : [{ entry, id: ids[i] }]));
  const asked = written.filter(({ entry }) => ASK_TWICE.includes(entry.record.kind)).map(({ id }) => id);
  const alike = groupBy(await recordsAlike(work, asked), ({ of }) => of);
  const results = written.map(({ entry, id }) => {
    const result: RoundResult = {
      key: entry.key,
      status: 'kept',
      id,
      alike: (alike.get(id) ?? []).map(toAlike),
    };
    return { entry, result };
  });
  await keepAnswers(
    work,
    results.map(({ entry, result }) => ({
      key: entry.key,
      fingerprint: fingerprintOf(entry),
      answer: { status: 200, body: result },
    })),
  );
  return new Map(results.map(({ entry, result }) => [entry.key, result]));
}

const fingerprintOf = (entry: RoundEntry): string =>
  createHash('sha256').update('round\n').update(JSON.stringify(entry)).digest('hex');

const toAlike = ({ id, kind, body, author, at }: AlikeRow): AlikeRecord => ({
  id,
  record: { kind, body } as RecordFact,
  author,
  at: new Date(at).toISOString(),
});

async function takeOne(work: Work<Actor>, { key, checked }: Sent): Promise<RoundResult> {
  try {
    if (!checked.ok) throw new Refusal('invalid', 'Correct the fields named below.', checked.problems);
    const entry = checked.value;
    // A savepoint of its own: what fails is undone alone.
    return await work.sequelize.transaction({ transaction: work.transaction }, async (transaction) => {
      const inner: Work<Actor> = { ...work, transaction };
      const answer = await onceByKey(inner, key, fingerprintOf(entry), async () => ({
        status: 200,
        body: await act(inner, entry),
      }));
      return answer.body as RoundResult;
    });
  } catch (error) {
    const refusal = toRefusal(error);
    if (mustBeginAgain(error)) throw error;
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

/** The whole has to be done again, or cannot be done now: that is no answer to an entry. */
const mustBeginAgain = (error: unknown): boolean =>
  error instanceof BeginAgain || PROBLEMS[toRefusal(error).code].status === 503 || isToBeDoneAgain(error);

/** The key as it can be sent back and kept; whatever else it was, the entry is refused. */
function keyOf(input: unknown): string {
  const key = typeof input === 'object' && input !== null ? (input as { key?: unknown }).key : undefined;
  return typeof key === 'string' ? toStorable(key).slice(0, 100) : '';
}

async function act(work: Work<Actor>, entry: RoundEntry): Promise<RoundResult> {
  if ('undo' in entry) return takeBack(work, entry);
  requirePermission(work.actor, grantForRecord(entry.record.kind));
  const { id } = await insertRecord(work, entry.animalId, entry.record);
  const alike = ASK_TWICE.includes(entry.record.kind) ? await recordsAlike(work, [id]) : [];
  return { key: entry.key, status: 'kept', id, alike: alike.map(toAlike) };
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
