import { isIsoDay, type Catalogue } from '@karyotome/core';
import { newAnimal, validate, type FieldProblem, type NewAnimal } from '@karyotome/contract';
import Papa from 'papaparse';
import { invalidField, Refusal } from '../../http/problems.ts';
import { genesProblems } from '../genetics/identification-check.ts';

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
const OTHER_NAMES: Readonly<Record<string, (typeof COLUMNS)[number]>> = {
  id: 'number',
  'hatch date': 'hatched',
  'hatched on': 'hatched',
  morph: 'genes',
  'weight g': 'weight',
  'weight (g)': 'weight',
  notes: 'note',
};
const SEX_WORDS: Readonly<Record<string, NewAnimal['sex']>> = {
  f: 'female',
  m: 'male',
  '': 'unknown',
  '?': 'unknown',
  u: 'unknown',
};
const MAX_ROWS = 5000;

function columnOf(header: string): (typeof COLUMNS)[number] | null {
  const folded = header.trim().toLowerCase().replace(/_/g, ' ');
  return COLUMNS.find((column) => column === folded) ?? OTHER_NAMES[folded] ?? null;
}

/** Reads the file into animals, each with what is wrong with it. Nothing is written. */
export function readCsv(text: string, catalogue: Catalogue): { rows: CsvAnimal[]; unknownColumns: string[] } {
  const parsed = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
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
  const rows = lines.map((cells, index) => readRow(columns, cells, index + 2, catalogue));
  markRepeated(rows);
  return { rows, unknownColumns: header.filter((_, i) => columns[i] === null) };
}

function readRow(
  columns: readonly ((typeof COLUMNS)[number] | null)[],
  cells: readonly string[],
  line: number,
  catalogue: Catalogue,
): CsvAnimal {
  const value = (column: (typeof COLUMNS)[number]): string => (cells[columns.indexOf(column)] ?? '').trim();
  const sex = value('sex').toLowerCase();
  const weight = value('weight').replace(/\s*g$/i, '');
  const candidate = {
    number: value('number'),
    name: value('name') || null,
    sex: SEX_WORDS[sex] ?? sex,
    hatchedOn: value('hatched') || null,
    genes: value('genes') || null,
    massG: weight === '' ? null : Number.isNaN(Number(weight)) ? weight : Number(weight),
    status: value('status').toLowerCase().replace(/ /g, '-') || null,
    note: value('note') || null,
  };
  const result = validate(newAnimal, candidate);
  const problems = result.ok
    ? []
    : result.problems.map((p) => ({ ...p, field: FIELD_COLUMNS[p.field] ?? p.field }));
  if (candidate.genes) problems.push(...genesProblems(candidate.genes, 'genes', catalogue));
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

const FIELD_COLUMNS: Readonly<Record<string, string>> = { hatchedOn: 'hatched', massG: 'weight' };

function markRepeated(rows: readonly CsvAnimal[]): void {
  const first = new Map<string, number>();
  for (const row of rows) {
    const earlier = first.get(row.animal.number);
    if (earlier === undefined) first.set(row.animal.number, row.line);
    else row.problems.push({ field: 'number', code: 'repeated', message: `stands in line ${earlier} too` });
  }
}
