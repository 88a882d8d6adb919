import { isIsoDay, type Catalogue } from '@karyotome/core';
import { newAnimal, validate, type FieldProblem, type NewAnimal } from '@karyotome/contract';
import Papa from 'papaparse';
import { invalidField, Refusal } from '../../refusal.ts';
import type { Progress } from '../../threads/pool.ts';
import { genesProblems } from '../../domain/genetics/identification-check.ts';

/** A row of the file: parents are numbers here, of the file or of the collection. */
export interface CsvAnimal {
  readonly line: number;
  readonly animal: NewAnimal;
  readonly dam: string;
  readonly sire: string;
  readonly problems: FieldProblem[];
}

const COLUMNS = [
  'number',
  'name',
  'sex',
  'hatched',
  'genes',
  'dam',
  'sire',
  'weight',
  'status',
  'note',
] as const;
type Column = (typeof COLUMNS)[number];
const OTHER_NAMES: ReadonlyMap<string, Column> = new Map([
  ['id', 'number'],
  ['hatch date', 'hatched'],
  ['hatched on', 'hatched'],
  ['morph', 'genes'],
  ['weight g', 'weight'],
  ['weight (g)', 'weight'],
  ['notes', 'note'],
]);
const SEX_WORDS: ReadonlyMap<string, NewAnimal['sex']> = new Map([
  ['f', 'female'],
  ['m', 'male'],
  ['', 'unknown'],
  ['?', 'unknown'],
  ['u', 'unknown'],
]);
const MAX_ROWS = 5000;
const MAX_COLUMNS = 40;
/** Longer than any field takes: what is longer is refused by its name, and nothing reads it. */
const MAX_CELL = 2000;
/** Of unknown words so many are told with what they may have been meant as; that is what takes long. */
const WORDS_TOLD = 500;

function columnOf(header: string): Column | null {
  const folded = header.slice(0, 80).trim().toLowerCase().replaceAll('_', ' ');
  return COLUMNS.find((column) => column === folded) ?? OTHER_NAMES.get(folded) ?? null;
}

/** Reads the file into animals, each with what is wrong with it. Nothing is written. */
export function readCsv(
  text: string,
  catalogue: Catalogue,
  today: string,
  progress: Progress = () => undefined,
): { rows: CsvAnimal[]; unknownColumns: string[] } {
  // One row more than is taken, and the header: enough to see that there are too many.
  const parsed = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: MAX_ROWS + 2 });
  const [header, ...lines] = parsed.data;
  const broken = parsed.errors.find((error) => error.type === 'Quotes');
  if (broken)
    throw invalidField(
      'file',
      `has a quote that is never closed, from row ${(broken.row ?? 0) + 1}`,
      'quotes',
    );
  if (!header || lines.length === 0) throw invalidField('file', 'holds no rows under its header', 'empty');
  if (lines.length > MAX_ROWS)
    throw invalidField('file', `holds more than ${MAX_ROWS} rows: split it`, 'too-many');
  if (header.length > MAX_COLUMNS)
    throw invalidField('file', `has ${header.length} columns: at most ${MAX_COLUMNS}`, 'too-many-columns');
  const columns = header.map(columnOf);
  for (const needed of ['number', 'sex'] as const) {
    if (!columns.includes(needed)) {
      throw new Refusal('invalid', `The header needs a column "${needed}".`, [
        {
          field: 'file',
          code: 'column',
          message: `has no column "${needed}"; known columns: ${COLUMNS.join(', ')}`,
        },
      ]);
    }
  }
  const genes = new GenesChecker(catalogue);
  const rows = lines.map((cells, index) => {
    progress(index, lines.length);
    return readRow(columns, cells, index + 2, genes, today);
  });
  markRepeated(rows);
  return {
    rows,
    unknownColumns: header.filter((_, i) => columns[i] === null).map((name) => name.slice(0, 80)),
  };
}

function readRow(
  columns: readonly (Column | null)[],
  whole: readonly string[],
  line: number,
  genes: GenesChecker,
  today: string,
): CsvAnimal {
  const cells = whole.map((cell) => cell.slice(0, MAX_CELL));
  const value = (column: Column): string => (cells[columns.indexOf(column)] ?? '').trim();
  const sex = value('sex').toLowerCase();
  const weight = value('weight').toLowerCase().endsWith('g')
    ? value('weight').slice(0, -1).trimEnd()
    : value('weight');
  const candidate = {
    number: value('number'),
    name: value('name') || null,
    sex: SEX_WORDS.get(sex) ?? sex,
    hatchedOn: value('hatched') || null,
    genes: value('genes') || null,
    massG: weight === '' ? null : Number.isNaN(Number(weight)) ? weight : Number(weight),
    status: value('status').toLowerCase().replaceAll(' ', '-') || null,
    note: value('note') || null,
  };
  const result = validate(newAnimal, candidate, { today });
  const problems = result.ok
    ? []
    : result.problems.map((p) => ({ ...p, field: FIELD_COLUMNS.get(p.field) ?? p.field }));
  if (candidate.genes && !problems.some(({ field }) => field === 'genes'))
    problems.push(...genes.check(candidate.genes));
  whole.forEach((cell, i) => {
    const column = columns[i];
    if (column && cell.length > MAX_CELL)
      problems.push({
        field: column,
        code: 'string.max',
        message: `is too long: at most ${MAX_CELL} characters`,
      });
  });
  if (cells.length > columns.length)
    problems.push({
      field: 'row',
      code: 'cells',
      message: `has ${cells.length} cells under ${columns.length} headings`,
    });
  if (candidate.hatchedOn && !isIsoDay(candidate.hatchedOn) && problems.length === 0) {
    problems.push({ field: 'hatched', code: 'day.format', message: 'must be written YYYY-MM-DD' });
  }
  return { line, animal: candidate as NewAnimal, dam: value('dam'), sire: value('sire'), problems };
}

/** Reads each text once, and stops looking for what unknown words may have been meant as when there are too many. */
class GenesChecker {
  readonly #catalogue: Catalogue;
  readonly #known = new Map<string, FieldProblem[]>();
  #words = 0;

  constructor(catalogue: Catalogue) {
    this.#catalogue = catalogue;
  }

  check(text: string): FieldProblem[] {
    let problems = this.#known.get(text);
    if (!problems) {
      problems =
        this.#words < WORDS_TOLD
          ? genesProblems(text, 'genes', this.#catalogue)
          : [
              {
                field: 'genes',
                code: 'unread',
                message: `was not read: the file has more than ${WORDS_TOLD} unknown words; correct those first`,
              },
            ];
      this.#words += problems.length;
      this.#known.set(text, problems);
    }
    return problems;
  }
}

const FIELD_COLUMNS: ReadonlyMap<string, string> = new Map([
  ['hatchedOn', 'hatched'],
  ['massG', 'weight'],
]);

function markRepeated(rows: readonly CsvAnimal[]): void {
  const first = new Map<string, number>();
  for (const row of rows) {
    const earlier = first.get(row.animal.number);
    if (earlier === undefined) first.set(row.animal.number, row.line);
    else row.problems.push({ field: 'number', code: 'repeated', message: `stands in line ${earlier} too` });
  }
}
