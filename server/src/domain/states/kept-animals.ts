import type { KeptAnimal } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { inThread, type Tasks } from '../../threads/pool.ts';
import type { RecordView } from '@karyotome/contract';
import { keptAnimal, recordsOf, toKeptAnimal } from './compute-state.ts';
import { stepsByLadder } from './day-basis.ts';
import { keptBatches, keptRowAlone, keptRows, livingIds, type KeptRow } from './kept-animals.queries.ts';
import type { ValidRecord } from '../records/history.ts';

/** An animal with its history, for a page that shows it. */
export interface AnimalWithHistory extends KeptAnimal {
  readonly records: readonly ValidRecord[];
}

/** Animals with their histories, also of some that left the collection: for a few that are shown. */
export async function keptAnimalsOf(
  work: Work,
  ids: readonly string[],
): Promise<Map<string, AnimalWithHistory>> {
  const ladders = await stepsByLadder(work);
  const rows = await keptRows(work, ids, work.today);
  return new Map(
    rows.map((row) => [row.id, { ...toKeptAnimal(row, ladders, work.today), records: recordsOf(row) }]),
  );
}

/** One animal whose records were read already. @param records - the newest first, voided ones among them */
export async function keptAnimalWith(
  work: Work,
  id: string,
  records: readonly RecordView[],
): Promise<KeptAnimal | null> {
  const row = await keptRowAlone(work, id);
  const standing = records
    .filter(({ voided }) => voided === null)
    .map(({ id: record, kind, on, body }) => ({
      id: record,
      animalId: id,
      kind,
      onDay: on,
      body: { ...body },
    }));
  return row && keptAnimal(row, standing.toReversed(), await stepsByLadder(work), work.today);
}

type TaskOfRows = {
  [Name in keyof Tasks]: Parameters<Tasks[Name]>[0] extends { readonly rows: readonly KeptRow[] }
    ? Name
    : never;
}[keyof Tasks];

/**
 * Runs a task over the histories of all animals that are kept here, batch by batch in a thread.
 *
 * @param more - what the task takes besides the rows
 * @returns what the task found of each batch
 */
export async function overHerd<Name extends TaskOfRows>(
  work: Work,
  task: Name,
  more: Omit<Parameters<Tasks[Name]>[0], 'rows'>,
): Promise<Awaited<ReturnType<Tasks[Name]>>[]> {
  const found: Awaited<ReturnType<Tasks[Name]>>[] = [];
  for await (const rows of keptBatches(work, await livingIds(work), work.today))
    found.push(await inThread(task, { ...more, rows } as unknown as Parameters<Tasks[Name]>[0]));
  return found;
}
