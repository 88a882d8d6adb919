import { randomUUID } from 'node:crypto';
import type { RecordKind } from '@karyotome/contract';
import type { AnimalRow, RecordRow } from '../../db/rows.ts';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { BeginAgain } from '../../db/begin-again.ts';
import { Refusal } from '../../refusal.ts';
import type { Job } from '../../http/jobs.ts';
import { usedNumbers } from '../../domain/animals/animals.queries.ts';
import { AS_ENTERED } from '../../domain/records/insert-record.ts';
import type { AnimalItem, FileItems, ImportGround, RecordItem } from './file-items.ts';
import {
  animalsByNumber,
  insertRecords,
  linesThere,
  type RecordToWrite,
  type Written,
} from './imports.queries.ts';
import { writeClutches } from './write-clutches.ts';
import { writeParents } from './write-parents.ts';

/** Rows in one statement. */
const CHUNK = 500;

/**
 * Writes what a checked file holds, all of it or nothing.
 *
 * @param ground - against which it was checked
 * @throws BeginAgain where that has changed since, so that it is checked anew
 */
export async function writeItems(
  work: Work<Actor>,
  ground: ImportGround,
  file: FileItems,
  job: Job,
): Promise<Written> {
  switch (file.kind) {
    case 'animals':
      return writeAnimals(work, ground, file.items, job);
    case 'parents':
      return writeParents(work, ground, file.items);
    case 'clutches':
      return writeClutches(work, file.items, job);
    default:
      return writeRecords(work, file.items, job);
  }
}

/** Runs a write for parts of a list, and says how far it is. */
async function inChunks<T>(
  job: Job,
  lists: readonly { readonly all: readonly T[]; readonly write: (chunk: T[]) => Promise<unknown> }[],
): Promise<void> {
  const of = lists.reduce((sum, { all }) => sum + all.length, 0);
  let done = 0;
  for (const { all, write } of lists)
    for (let from = 0; from < all.length; from += CHUNK) {
      if (job.signal.aborted)
        throw new Refusal('conflict', 'The import was cancelled. Nothing was imported.');
      const chunk = all.slice(from, from + CHUNK);
      await write(chunk);
      done += chunk.length;
      job.report({ step: 'writing', done, of });
    }
}

async function writeAnimals(
  work: Work<Actor>,
  ground: ImportGround,
  items: readonly AnimalItem[],
  job: Job,
): Promise<Written> {
  const { collectionId } = work.actor;
  const known = await animalsByNumber(work);
  const ids = new Map(known.map(({ number, id }) => [number, id]));
  // Checked against what was there some seconds ago: where that has changed, the file is checked anew.
  const used = new Set(await usedNumbers(work));
  const before = new Map(ground.known.map((animal) => [animal.number, animal]));
  const now = new Map(known.map((animal) => [animal.number, animal]));
  const hasChanged = (number: string): boolean => {
    const [then, today] = [before.get(number), now.get(number)];
    return then?.sex !== today?.sex || then?.hatchedOn !== today?.hatchedOn;
  };
  const isStale = items.some(
    ({ animal, dam, sire }) => used.has(animal.number) || [dam, sire].some((parent) => hasChanged(parent)),
  );
  if (isStale) throw new BeginAgain();
  for (const { animal } of items) ids.set(animal.number, randomUUID());
  const animals = items.map((item) => toAnimalRow(item, collectionId, ids));
  const records = items.flatMap((item) => toRecordRows(item, work, ids.get(item.animal.number)!));
  const numbers = items.map(({ animal }) => ({ collectionId, number: animal.number }));
  const { models, transaction } = work;
  await inChunks<object>(job, [
    { all: numbers, write: (chunk) => models.usedNumbers.bulkCreate(chunk as never, { transaction }) },
    { all: animals, write: (chunk) => models.animals.bulkCreate(chunk as never, { transaction }) },
    { all: records, write: (chunk) => models.records.bulkCreate(chunk as never, { transaction }) },
  ]);
  await touchGenetics(work);
  return {
    rows: items.length,
    made: { animals: animals.map(({ id }) => id!), records: records.map(({ id }) => id!) },
  };
}

function toAnimalRow(
  { animal, dam, sire }: AnimalItem,
  collectionId: string,
  ids: ReadonlyMap<string, string>,
): Partial<AnimalRow> {
  return {
    collectionId,
    id: ids.get(animal.number)!,
    number: animal.number,
    name: animal.name || null,
    sex: animal.sex,
    hatchedOn: animal.hatchedOn ?? null,
    damId: dam ? ids.get(dam)! : null,
    sireId: sire ? ids.get(sire)! : null,
    status: animal.status ?? 'undecided',
    note: animal.note || null,
    version: 1,
  };
}

/** What the row says of the animal, as records of today, as if it had been entered by hand; its weight of the day that is given. */
function toRecordRows(
  { animal, dam, sire, weighedOn }: AnimalItem,
  work: Work<Actor>,
  animalId: string,
): Partial<RecordRow>[] {
  const { collectionId, accountId, name: by } = work.actor;
  const bodies: [RecordKind, Record<string, unknown>, string][] = [];
  if (animal.sex !== 'unknown')
    bodies.push(['sex', { sex: animal.sex, method: 'stated', sure: 'certain', by }, work.today]);
  // What a file says of an animal that came in is a seller's word: of recessive genes it may be silent.
  const open = dam || sire ? {} : { completeness: 'recessives-unknown' };
  if (animal.genes)
    bodies.push(['identification', { genes: animal.genes, sure: 'certain', by, ...open }, work.today]);
  if (animal.massG) bodies.push(['weight', { massG: animal.massG }, weighedOn ?? work.today]);
  return bodies.map(([kind, body, onDay]) => ({
    collectionId,
    id: randomUUID(),
    animalId,
    kind,
    onDay,
    body,
    note: null,
    authorId: accountId,
    recordedAt: AS_ENTERED,
  }));
}

/** Records as they are written, of the kind that all of them are. */
export function toWrite(items: readonly RecordItem[]): { kind: RecordKind; rows: RecordToWrite[] } {
  return {
    kind: items[0]?.record.kind ?? 'weight',
    rows: items.map(({ line, animalId, record }) => ({
      id: randomUUID(),
      line,
      animal_id: animalId,
      on_day: record.on,
      body: record.body,
      note: record.note || null,
    })),
  };
}

async function writeRecords(work: Work<Actor>, items: readonly RecordItem[], job: Job): Promise<Written> {
  const { kind, rows } = toWrite(items);
  const there = await linesThere(work, kind, rows);
  const fresh = rows.filter(({ line }) => !there.has(line));
  await inChunks(job, [{ all: fresh, write: (chunk) => insertRecords(work, kind, chunk) }]);
  return { rows: fresh.length, made: { records: fresh.map(({ id }) => id) } };
}
