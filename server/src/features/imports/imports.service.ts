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
import { HEADING } from './propose-plan.ts';
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
import { refusePublished } from './write-parents.ts';

/** What a file is held against. */
export async function importGround(work: Work): Promise<ImportGround> {
  const { massUnit } = await collectionOf(work);
  return {
    entries: await entryInputs(work),
    known: await animalsByNumber(work),
    used: await usedNumbers(work),
    remembered: await rememberedWords(work),
    isPounds: massUnit === 'oz',
    today: work.today,
  };
}

/** Reads a file and finds what is wrong with it, in a thread. */
export function checkFile(
  ground: ImportGround,
  bytes: Buffer,
  plan: ImportPlan | null,
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
  { seen }: CheckedImport,
): Promise<{ id: string }> {
  const id = randomUUID();
  await insertImport(work, { id, fileName, bytes, plan: seen.plan });
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
export async function draftOf(work: Work, id: string): Promise<Draft> {
  const row = await importRow(work, id);
  if (!row) throw notFound('This file');
  const bytes = await bytesOf(work, id);
  if (!bytes) throw new Refusal('conflict', 'This file was brought in already.');
  return { summary: toSummary(row), plan: row.plan, bytes, ground: await importGround(work) };
}

export async function viewOf(
  work: Work,
  summary: ImportSummary,
  { seen, items }: CheckedImport,
): Promise<ImportView> {
  const isRecords = items.kind === 'weights' || items.kind === 'meals' || items.kind === 'sheds';
  const known = isRecords ? (await linesThere(work, ...wordsOfRecords(items.items))).size : 0;
  return { ...summary, kind: seen.plan.kind, ...seen, known };
}

const wordsOfRecords = (
  items: Parameters<typeof toWrite>[0],
): [string, ReturnType<typeof toWrite>['rows']] => {
  const { kind, rows } = toWrite(items);
  return [kind, rows];
};

export async function changePlan(work: Work<Actor>, id: string, plan: ImportPlan): Promise<void> {
  await draftOf(work, id);
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
  if (!(await bytesOf(work, id))) throw new Refusal('conflict', 'This file was brought in already.');
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
      `Something was recorded since of ${inUse.slice(0, 5).join(', ')}${inUse.length > 5 ? ' and others' : ''}: the file cannot be taken back as a whole.`,
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
