import { randomUUID } from 'node:crypto';
import type { ImportPlan, ImportSummary, ImportView, ImportWord } from '@karyotome/contract';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import type { Job } from '../../http/jobs.ts';
import { inThread } from '../../threads/pool.ts';
import { clutchName } from '@karyotome/core';
import { entryInputs } from '../../domain/catalogue/catalogue.service.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { usedNumbers } from '../../domain/animals/animals.queries.ts';
import type { CheckedImport } from './check-import.ts';
import type { ImportGround } from './file-items.ts';
import { folded } from './import-words.ts';
import { HEADING, type Habits } from './propose-plan.ts';
import {
  animalsByNumber,
  animalsInUse,
  bytesOf,
  clutchesInUse,
  deleteDraft,
  deleteMade,
  importRow,
  importRows,
  insertImport,
  linesThere,
  madeBy,
  rememberedWords,
  rememberWords,
  setDone,
  setParents,
  setPlan,
  setUndone,
  type ImportRow,
} from './imports.queries.ts';
import { toWrite, writeItems } from './write-items.ts';
import { refusePublished, someOf } from './write-parents.ts';

/** What a file is held against. */
export async function importGround(work: Work): Promise<ImportGround> {
  return {
    ...(await habitsOf(work)),
    entries: await entryInputs(work),
    known: await animalsByNumber(work),
    used: await usedNumbers(work),
    today: work.today,
  };
}

export async function habitsOf(work: Work): Promise<Habits> {
  const { massUnit } = await collectionOf(work);
  return { remembered: await rememberedWords(work), isInOunces: massUnit === 'oz' };
}

/** Reads a file so far that it can be told how it is probably to be read, in a thread. */
export function proposalFor(habits: Habits, bytes: Buffer, job: Job): Promise<ImportPlan> {
  job.report({ step: 'reading', done: 0, of: 0 });
  return inThread('propose-import', { bytes, habits }, { signal: job.signal });
}

/** Reads a file and finds what is wrong with it, in a thread. */
export function checkFile(
  ground: ImportGround,
  bytes: Buffer,
  plan: ImportPlan,
  job: Job,
): Promise<CheckedImport> {
  job.report({ step: 'reading', done: 0, of: 0 });
  return inThread(
    'check-import',
    { bytes, plan, ground },
    { signal: job.signal, onProgress: (done, of) => job.report({ step: 'checking', done, of }) },
  );
}

export async function addImport(
  work: Work<Actor>,
  fileName: string,
  bytes: Buffer,
  plan: ImportPlan,
): Promise<{ id: string }> {
  const id = randomUUID();
  await insertImport(work, { id, fileName, bytes, plan });
  return { id };
}

const toSummary = ({ plan, ...row }: ImportRow): ImportSummary => ({ ...row, kind: plan.kind });

export const listImports = async (work: Work): Promise<ImportSummary[]> =>
  (await importRows(work)).map(toSummary);

/** A draft with its file and what it is held against. */
export interface Draft {
  readonly summary: ImportSummary;
  readonly plan: ImportPlan;
  readonly bytes: Buffer;
  readonly ground: ImportGround;
}

/** @throws Refusal where it is none, or was taken or discarded meanwhile */
async function requireDraft(work: Work, id: string): Promise<ImportRow> {
  const row = await importRow(work, id);
  if (!row) throw notFound('This file');
  if (row.state !== 'draft') throw new Refusal('conflict', 'This file was brought in already.');
  return row;
}

/** @throws Refusal as `requireDraft` */
export async function draftOf(work: Work, id: string): Promise<Draft> {
  const row = await requireDraft(work, id);
  return {
    summary: toSummary(row),
    plan: row.plan,
    bytes: await bytesOf(work, id),
    ground: await importGround(work),
  };
}

export async function viewOf(
  work: Work,
  summary: ImportSummary,
  { seen, items }: CheckedImport,
): Promise<ImportView> {
  return { ...summary, kind: seen.plan.kind, ...seen, known: await knownOf(work, items) };
}

/** How many rows say what is recorded already. */
async function knownOf(work: Work, file: CheckedImport['items']): Promise<number> {
  if (file.kind !== 'weights' && file.kind !== 'meals' && file.kind !== 'sheds') return 0;
  const { kind, rows } = toWrite(file.items);
  return (await linesThere(work, kind, rows)).size;
}

export async function changePlan(work: Work<Actor>, id: string, plan: ImportPlan): Promise<void> {
  await requireDraft(work, id);
  await setPlan(work, id, plan);
}

/** More faults than this are not told at once. */
const FAULTS_TOLD = 200;

/** @throws Refusal where something is missing, or rows are wrong and are not to be left out */
export function refuseFaults({ seen }: CheckedImport, leaveOutBad: boolean): void {
  const { missing, problems, bad, good } = seen;
  if (missing.length > 0)
    throw new Refusal(
      'invalid',
      'Some columns are missing. Nothing was imported.',
      missing.map((field) => ({
        field: `columns.${field}`,
        code: 'any.required',
        message: 'is in no column',
      })),
    );
  if (bad > 0 && !leaveOutBad)
    throw new Refusal(
      'invalid',
      'Some rows need a correction. Nothing was imported.',
      problems
        .slice(0, FAULTS_TOLD)
        .map(({ field, code, message, line }) => ({ field: `rows.${line}.${field}`, code, message })),
    );
  if (good === 0) throw invalidField('file', 'holds no row that can be brought in', 'empty');
}

/** Takes what a file holds, and remembers what its words mean. */
export async function runImport(
  work: Work<Actor>,
  id: string,
  ground: ImportGround,
  { seen, items }: CheckedImport,
  job: Job,
): Promise<{ rows: number }> {
  await requireDraft(work, id);
  const { rows, made } = await writeItems(work, ground, items, job);
  await rememberWords(work, toRemember(seen));
  await setDone(work, id, rows, made);
  return { rows };
}

/** Words that somebody gave a meaning, and headings that stand for a field. */
function toRemember({ plan, columns, words }: CheckedImport['seen']): ImportWord[] {
  const headings = plan.columns.map((value, i) => ({
    field: HEADING,
    word: folded(columns[i]!.title),
    value,
  }));
  const said = words.flatMap(({ field, word, value }) =>
    value === undefined ? [] : [{ field, word, value }],
  );
  const byKey = new Map(
    [...headings, ...said]
      .filter(({ field, word }) => field !== HEADING || word !== '')
      .map((one) => [`${one.field} ${one.word}`, one]),
  );
  return [...byKey.values()];
}

/**
 * Takes back everything that a file brought in, as if it had never come.
 *
 * @throws Refusal that says what was built on it since
 */
export async function undoImport(work: Work<Actor>, id: string): Promise<void> {
  if (!(await importRow(work, id))) throw notFound('This file');
  const made = await madeBy(work, id);
  if (!made) throw new Refusal('conflict', 'There is nothing to take back: this file was not brought in.');
  const inUse = [
    ...(made.animals ? await animalsInUse(work, made) : []),
    ...(made.clutches ? await clutchesInUse(work, made) : []).map(
      ({ season, ordinal }) => `clutch ${clutchName(season, ordinal)}`,
    ),
  ];
  if (inUse.length > 0)
    throw new Refusal(
      'conflict',
      `Something was recorded since of ${someOf(inUse)}: the file cannot be taken back as a whole.`,
    );
  const parents = (made.parents ?? []).map(({ id: animal, was, becomes }) => ({
    id: animal,
    was: becomes,
    becomes: was,
  }));
  await refusePublished(work, parents);
  if ((await setParents(work, parents)) < parents.length)
    throw new Refusal(
      'conflict',
      'Some of these parents were changed since: the file cannot be taken back as a whole.',
    );
  await deleteMade(work, made);
  await touchGenetics(work);
  await setUndone(work, id);
}

export async function discardImport(work: Work<Actor>, id: string): Promise<void> {
  if (await deleteDraft(work, id)) return;
  if (!(await importRow(work, id))) throw notFound('This file');
  throw new Refusal('conflict', 'This file was brought in already: take it back instead.');
}
