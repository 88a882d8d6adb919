import type { FieldProblem, ImportRow } from '@karyotome/contract';
import {
  canonicalLabel,
  createCatalogue,
  parseGenes,
  toAdditions,
  type CatalogueChange,
} from '@karyotome/core';
import type { Progress } from '../../threads/pool.ts';
import { groupBy } from '../../group-by.ts';
import { decodeCsv } from '../../http/csv-body.ts';
import { readCsv, type CsvAnimal } from './read-csv.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'check-import': typeof checkImport;
  }
}

/** What is known of the collection a file is to be brought into. */
export interface ImportGround {
  readonly entries: readonly CatalogueChange[];
  readonly known: readonly {
    readonly number: string;
    readonly sex: string;
    readonly hatchedOn: string | null;
  }[];
  /** Numbers that were ever given. */
  readonly used: readonly string[];
  readonly today: string;
}

export interface CheckedImport {
  /** As they stand in the file. */
  readonly rows: readonly CsvAnimal[];
  /** Of each row, what a reader sees of it. */
  readonly shown: readonly ImportRow[];
  /** Places of the rows, parents before their young; rows in a circle are left out. */
  readonly parentsFirst: readonly number[];
  readonly unknownColumns: readonly string[];
}

type Ancestor = ImportGround['known'][number];

/**
 * Reads a CSV file and finds everything that is wrong with it: with its cells, and against the collection. In time that grows
 * with the file; run in a thread.
 */
export function checkImport(
  { bytes, ground }: { bytes: Uint8Array; ground: ImportGround },
  progress: Progress,
): CheckedImport {
  const catalogue = createCatalogue(toAdditions(ground.entries));
  const { rows, unknownColumns } = readCsv(decodeCsv(bytes), catalogue, ground.today, progress);
  const used = new Set(ground.used);
  const animals = new Map<string, Ancestor>(ground.known.map((animal) => [animal.number, animal]));
  for (const { animal } of rows)
    animals.set(animal.number, {
      number: animal.number,
      sex: animal.sex,
      hatchedOn: animal.hatchedOn ?? null,
    });
  for (const row of rows) {
    if (used.has(row.animal.number))
      row.problems.push(problem('number', 'taken', 'was used before; numbers are never reused'));
    checkParentCell(row, 'dam', 'male', animals);
    checkParentCell(row, 'sire', 'female', animals);
    if (row.dam !== '' && row.dam === row.sire)
      row.problems.push(problem('sire', 'same-parent', 'is the dam too'));
  }
  const order = parentsFirst(rows);
  markCircles(rows, new Set(order));
  const shown = rows.map(({ line, animal, problems }) => ({
    line,
    number: animal.number,
    genes: animal.genes ?? '',
    label: labelOf(animal.genes ?? '', problems),
    sex: animal.sex,
    problems,
  }));
  return { rows, shown, parentsFirst: order, unknownColumns };

  function labelOf(genes: string, problems: readonly FieldProblem[]): string {
    if (genes === '' || problems.some(({ field }) => field === 'genes')) return '';
    return canonicalLabel(parseGenes(genes, catalogue), catalogue);
  }
}

const problem = (field: string, code: string, message: string): FieldProblem => ({ field, code, message });

function checkParentCell(
  row: CsvAnimal,
  field: 'dam' | 'sire',
  wrong: string,
  animals: ReadonlyMap<string, Ancestor>,
): void {
  const number = row[field];
  if (number === '') return;
  const parent = animals.get(number);
  if (!parent) row.problems.push(problem(field, 'unknown', 'names no animal of the file or the collection'));
  else if (parent.sex === wrong)
    row.problems.push(
      problem(field, 'wrong-sex', `must be a ${field === 'dam' ? 'female' : 'male'}: it is ${wrong}`),
    );
  else if (number === row.animal.number)
    row.problems.push(problem(field, 'own-ancestor', 'is the animal itself'));
  else if (parent.hatchedOn && row.animal.hatchedOn && parent.hatchedOn >= row.animal.hatchedOn)
    row.problems.push(problem(field, 'too-young', `hatched on ${parent.hatchedOn}, not before its young`));
}

/** An animal that is its own ancestor cannot be put after its parents: whatever is left over stands in a circle. */
function markCircles(rows: readonly CsvAnimal[], sorted: ReadonlySet<number>): void {
  rows.forEach((row, at) => {
    if (!sorted.has(at))
      row.problems.push(
        problem(row.dam ? 'dam' : 'sire', 'own-ancestor', 'makes the animal its own ancestor'),
      );
  });
}

/** Places of the rows in an order in which parents come before their young (Kahn 1962, Communications of the ACM 5). */
function parentsFirst(rows: readonly CsvAnimal[]): number[] {
  const placeOf = new Map(rows.map((row, at) => [row.animal.number, at]));
  const links = rows.flatMap((row, child) =>
    [row.dam, row.sire].flatMap((number) => {
      const parent = number === '' ? undefined : placeOf.get(number);
      return parent === undefined ? [] : [{ parent, child }];
    }),
  );
  const young = groupBy(links, ({ parent }) => parent);
  const open = rows.map(() => 0);
  for (const { child } of links) open[child]! += 1;
  const ready = open.flatMap((parents, at) => (parents === 0 ? [at] : []));
  for (let next = 0; next < ready.length; next++)
    for (const { child } of young.get(ready[next]!) ?? []) {
      open[child]! -= 1;
      if (open[child] === 0) ready.push(child);
    }
  return ready;
}
