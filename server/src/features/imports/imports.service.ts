import { randomUUID } from 'node:crypto';
import type { ImportPreview, RecordKind } from '@karyotome/contract';
import type { AnimalRow, RecordRow } from '../../db/rows.ts';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { BeginAgain } from '../../db/begin-again.ts';
import { Refusal } from '../../refusal.ts';
import type { Job } from '../../http/jobs.ts';
import { inThread } from '../../threads/pool.ts';
import { entryInputs } from '../../domain/catalogue/catalogue.service.ts';
import { AS_ENTERED } from '../../domain/records/insert-record.ts';
import type { CheckedImport, ImportGround } from './check-import.ts';
import type { CsvAnimal } from './read-csv.ts';
import { usedNumbers } from '../../domain/animals/animals.queries.ts';
import { animalsByNumber } from './imports.queries.ts';

/** What a file is held against. */
export async function importGround(work: Work): Promise<ImportGround> {
  return {
    entries: await entryInputs(work),
    known: (await animalsByNumber(work)).map(({ number, sex, hatchedOn }) => ({ number, sex, hatchedOn })),
    used: await usedNumbers(work),
    today: work.today,
  };
}

/** Reads a file and finds what is wrong with it, in a thread. */
export async function checkFile(ground: ImportGround, bytes: Buffer, job: Job): Promise<CheckedImport> {
  job.report({ step: 'reading', done: 0, of: 0 });
  return inThread(
    'check-import',
    { bytes, ground },
    { signal: job.signal, onProgress: (done, of) => job.report({ step: 'checking', done, of }) },
  );
}

/** What the file would bring in, row by row, with everything that is wrong. */
export function toPreview({ shown, unknownColumns }: CheckedImport): ImportPreview {
  const good = shown.filter(({ problems }) => problems.length === 0).length;
  return { unknownColumns: [...unknownColumns], good, bad: shown.length - good, rows: [...shown] };
}

/** More faults than this are not read by anybody at once. */
const FAULTS_TOLD = 200;

export function refuseFaults({ rows }: CheckedImport): void {
  const faults = rows.flatMap((row) =>
    row.problems.map((p) => ({ ...p, field: `rows.${row.line}.${p.field}` })),
  );
  if (faults.length > 0)
    throw new Refusal(
      'invalid',
      'Some rows need a correction. Nothing was imported.',
      faults.slice(0, FAULTS_TOLD),
    );
}

/** Rows in one statement. */
const CHUNK = 500;

/** Brings in every row of a checked file, or none. */
export async function bringIn(
  work: Work<Actor>,
  ground: ImportGround,
  { rows, parentsFirst }: CheckedImport,
  job: Job,
): Promise<{ imported: number }> {
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
  const isStale = rows.some(
    ({ animal, dam, sire }) => used.has(animal.number) || [dam, sire].some((parent) => hasChanged(parent)),
  );
  if (isStale) throw new BeginAgain();
  for (const { animal } of rows) ids.set(animal.number, randomUUID());
  const ordered = parentsFirst.map((at) => rows[at]!);
  const animals = ordered.map((row) => toAnimal(row, collectionId, ids));
  const records = ordered.flatMap((row) => toRecords(row, work, ids.get(row.animal.number)!));
  const numbers = rows.map(({ animal }) => ({ collectionId, number: animal.number }));
  let done = 0;
  const of = numbers.length + animals.length + records.length;
  const inChunks = async <T>(all: readonly T[], write: (chunk: T[]) => Promise<unknown>): Promise<void> => {
    for (let from = 0; from < all.length; from += CHUNK) {
      if (job.signal.aborted)
        throw new Refusal('conflict', 'The import was cancelled. Nothing was imported.');
      const chunk = all.slice(from, from + CHUNK);
      await write(chunk);
      done += chunk.length;
      job.report({ step: 'writing', done, of });
    }
  };
  const { models, transaction } = work;
  await inChunks(numbers, (chunk) => models.usedNumbers.bulkCreate(chunk, { transaction }));
  await inChunks(animals, (chunk) => models.animals.bulkCreate(chunk, { transaction }));
  await inChunks(records, (chunk) => models.records.bulkCreate(chunk, { transaction }));
  await touchGenetics(work);
  return { imported: rows.length };
}

function toAnimal(
  { animal, dam, sire }: CsvAnimal,
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

/** What the row says of the animal, as records of today, as if it had been entered by hand. */
function toRecords(
  { animal, dam, sire }: CsvAnimal,
  work: Work<Actor>,
  animalId: string,
): Partial<RecordRow>[] {
  const { collectionId, accountId, name: by } = work.actor;
  const bodies: [RecordKind, Record<string, unknown>][] = [];
  if (animal.sex !== 'unknown')
    bodies.push(['sex', { sex: animal.sex, method: 'stated', sure: 'certain', by }]);
  // What a file says of an animal that came in is a seller's word: of recessive genes it may be silent.
  const open = dam || sire ? {} : { completeness: 'recessives-unknown' };
  if (animal.genes) bodies.push(['identification', { genes: animal.genes, sure: 'certain', by, ...open }]);
  if (animal.massG) bodies.push(['weight', { massG: animal.massG }]);
  return bodies.map(([kind, body]) => ({
    collectionId,
    id: randomUUID(),
    animalId,
    kind,
    onDay: work.today,
    body,
    note: null,
    authorId: accountId,
    recordedAt: AS_ENTERED,
  }));
}
