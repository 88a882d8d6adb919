import type { ImportPreview } from '@karyotome/contract';
import { canonicalLabel, parseGenes } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { createAnimal } from '../animals/animals.service.ts';
import { catalogueOf } from '../catalogue/catalogue.service.ts';
import { Refusal } from '../../http/problems.ts';
import { readCsv, type CsvAnimal } from './read-csv.ts';

interface Known {
  id: string;
  number: string;
  sex: string;
}

/** What the file would bring in, row by row, with everything that is wrong. Writes nothing. */
export async function previewImport(work: Work, text: string): Promise<ImportPreview> {
  const catalogue = await catalogueOf(work);
  const { rows, unknownColumns } = await checkedRows(work, text);
  return {
    unknownColumns,
    good: rows.filter((row) => row.problems.length === 0).length,
    bad: rows.filter((row) => row.problems.length > 0).length,
    rows: rows.map(({ line, animal, problems }) => ({
      line,
      number: animal.number,
      genes: animal.genes ?? '',
      label: animal.genes ? canonicalLabel(parseGenes(animal.genes, catalogue), catalogue) : '',
      sex: animal.sex,
      problems,
    })),
  };
}

/** Brings in every row of a file, or none where any row has a fault. */
export async function runImport(work: Work, text: string): Promise<{ imported: number }> {
  const { rows, known } = await checkedRows(work, text);
  const faults = rows.flatMap((row) =>
    row.problems.map((p) => ({ ...p, field: `rows.${row.line}.${p.field}` })),
  );
  if (faults.length > 0)
    throw new Refusal('invalid', 'Some rows need a correction. Nothing was imported.', faults);
  const ids = new Map(known.map(({ number, id }) => [number, id]));
  for (const row of parentsFirst(rows)) {
    const { id } = await createAnimal(work, {
      ...row.animal,
      ...(row.dam ? { damId: ids.get(row.dam)! } : {}),
      ...(row.sire ? { sireId: ids.get(row.sire)! } : {}),
    });
    ids.set(row.animal.number, id);
  }
  return { imported: rows.length };
}

async function checkedRows(
  work: Work,
  text: string,
): Promise<{ rows: CsvAnimal[]; unknownColumns: string[]; known: Known[] }> {
  const read = readCsv(text, await catalogueOf(work));
  const known = await select<Known>(
    work,
    'select id, number, sex from animals where collection_id = :collectionId',
  );
  const used = await select<{ number: string }>(
    work,
    'select number from used_numbers where collection_id = :collectionId',
  );
  const usedNumbers = new Set(used.map((row) => row.number));
  const sexes = new Map(
    [...known, ...read.rows.map(({ animal }) => animal)].map(({ number, sex }) => [number, sex]),
  );
  for (const row of read.rows) {
    if (usedNumbers.has(row.animal.number)) {
      row.problems.push({
        field: 'number',
        code: 'taken',
        message: 'was used before; numbers are never reused',
      });
    }
    checkParentCell(row, 'dam', 'male', sexes);
    checkParentCell(row, 'sire', 'female', sexes);
  }
  markCircles(read.rows);
  return { ...read, known };
}

function checkParentCell(
  row: CsvAnimal,
  field: 'dam' | 'sire',
  wrong: string,
  sexes: ReadonlyMap<string, string>,
): void {
  const number = row[field];
  if (number === '') return;
  const sex = sexes.get(number);
  if (sex === undefined) {
    row.problems.push({ field, code: 'unknown', message: 'names no animal of the file or the collection' });
  } else if (sex === wrong) {
    row.problems.push({
      field,
      code: 'wrong-sex',
      message: `must be a ${field === 'dam' ? 'female' : 'male'}: it is ${wrong}`,
    });
  } else if (number === row.animal.number) {
    row.problems.push({ field, code: 'own-ancestor', message: 'is the animal itself' });
  }
}

/** An animal that is its own ancestor cannot be put after its parents: whatever is left over stands in a circle. */
function markCircles(rows: readonly CsvAnimal[]): void {
  const sorted = new Set(parentsFirst(rows));
  for (const row of rows) {
    if (!sorted.has(row)) {
      row.problems.push({
        field: row.dam ? 'dam' : 'sire',
        code: 'own-ancestor',
        message: 'makes the animal its own ancestor',
      });
    }
  }
}

function parentsFirst(rows: readonly CsvAnimal[]): CsvAnimal[] {
  const inFile = new Set(rows.map((row) => row.animal.number));
  const placed = new Set<string>();
  const sorted: CsvAnimal[] = [];
  let waiting = [...rows];
  for (;;) {
    const ready = waiting.filter((row) =>
      [row.dam, row.sire].every((parent) => !inFile.has(parent) || placed.has(parent)),
    );
    if (ready.length === 0) return sorted;
    sorted.push(...ready);
    ready.forEach((row) => placed.add(row.animal.number));
    waiting = waiting.filter((row) => !ready.includes(row));
  }
}
