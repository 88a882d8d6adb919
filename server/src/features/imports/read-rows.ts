import {
  IMPORT_WORD_LENGTH,
  importFields,
  MOST_IMPORT_WORDS,
  type FieldProblem,
  type ImportFieldRule,
  type ImportPlan,
  type ImportWordUse,
} from '@karyotome/contract';
import type { Progress } from '../../threads/pool.ts';
import { readDay, readMass, readNumber } from './cell-styles.ts';
import { usualMeaning } from './import-words.ts';
import type { Remembered } from './propose-plan.ts';
import { MOST_CELL, type Table } from './read-table.ts';

/** A cell as it is read; null where it is empty. */
export type Value = string | number | null;

/** A row of a file, by field. */
export interface ReadRow {
  /** As the file's own lines are counted, the heading being the first. */
  readonly line: number;
  readonly values: Readonly<Record<string, Value>>;
  /** The cells as they stand there. */
  readonly cells: Readonly<Record<string, string>>;
  readonly problems: FieldProblem[];
}

/** What a word means by whoever brings the file, by what was said before, and by what everybody knows; undefined where nobody has said. */
export function meaningsOf(
  plan: ImportPlan,
  remembered: Remembered,
): (field: string, word: string) => string | null | undefined {
  const fields = importFields(plan.kind);
  const said = new Map<string, string | null>();
  for (const { field, word, value } of [...remembered, ...plan.words]) said.set(`${field} ${word}`, value);
  return (field, word) => {
    const given = said.get(`${field} ${word}`);
    if (given !== undefined) return given;
    const { values = [], isRequired } = fields[field]!;
    return usualMeaning(field, word, values) ?? (word === '' && !isRequired ? null : undefined);
  };
}

/** Words of columns of words, the most frequent first. */
export function wordsOf(table: Table, plan: ImportPlan, remembered: Remembered): ImportWordUse[] {
  const meaning = meaningsOf(plan, remembered);
  const fields = importFields(plan.kind);
  return plan.columns.flatMap((field, i) => {
    if (field === null || fields[field]?.type !== 'word') return [];
    const counts = new Map<string, number>();
    for (const row of table.rows) {
      const word = wordIn(row[i]);
      counts.set(word, (counts.get(word) ?? 0) + 1);
    }
    return [...counts]
      .toSorted(([, a], [, b]) => b - a)
      .slice(0, MOST_IMPORT_WORDS)
      .map(([word, count]) => ({ field, word, count, value: meaning(field, word) }));
  });
}

const wordIn = (cell: string | undefined): string =>
  (cell ?? '').trim().toLowerCase().slice(0, IMPORT_WORD_LENGTH);

/** Reads every row by the plan. Columns and fields that the plan names wrongly were refused before. */
export function readRows(
  table: Table,
  plan: ImportPlan,
  remembered: Remembered,
  progress: Progress = () => undefined,
): ReadRow[] {
  const fields = importFields(plan.kind);
  const meaning = meaningsOf(plan, remembered);
  const fixed = Object.fromEntries(plan.fixed.map(({ field, value }) => [field, value]));
  return table.rows.map((row, index) => {
    progress(index, table.rows.length);
    const problems: FieldProblem[] = [];
    const values: Record<string, Value> = { ...fixed };
    const cells: Record<string, string> = {};
    if (row.length > table.titles.length && row.slice(table.titles.length).some((cell) => cell.trim() !== ''))
      problems.push(wrong('row', 'cells', `has ${row.length} cells under ${table.titles.length} headings`));
    plan.columns.forEach((field, i) => {
      if (field === null) return;
      const whole = row[i] ?? '';
      if (whole.length > MOST_CELL)
        problems.push(wrong(field, 'string.max', `is too long: at most ${MOST_CELL} characters`));
      const cell = whole.slice(0, MOST_CELL).trim();
      cells[field] = cell;
      values[field] = valueOf(fields[field]!, field, cell);
    });
    for (const [field, { isRequired }] of Object.entries(fields))
      if (isRequired && values[field] == null && !problems.some((problem) => problem.field === field))
        problems.push(wrong(field, 'any.required', 'is missing'));
    return { line: index + 2, values, cells, problems };

    function valueOf({ type, values: choices = [] }: ImportFieldRule, field: string, cell: string): Value {
      if (type === 'word') {
        const value = meaning(field, wordIn(cell));
        if (value === undefined)
          problems.push(
            cell === ''
              ? wrong(field, 'any.required', 'is missing')
              : wrong(
                  field,
                  'any.only',
                  `“${cell}” must be one of ${choices.join(', ')}: say which it means`,
                ),
          );
        return value ?? null;
      }
      if (cell === '') return null;
      const value = typed(type, cell, plan);
      if (value === null) problems.push(wrong(field, ...UNREADABLE[type]!));
      return value;
    }
  });
}

function typed(type: ImportFieldRule['type'], cell: string, plan: ImportPlan): Value {
  switch (type) {
    case 'day':
      return readDay(cell, plan.dates);
    case 'mass':
      return readMass(cell, plan.decimals, plan.masses);
    case 'count':
    case 'celsius':
      return readNumber(cell.replace(/\s*°?\s*c$/i, ''), plan.decimals);
    default:
      return cell;
  }
}

const UNREADABLE: Readonly<Partial<Record<ImportFieldRule['type'], readonly [string, string]>>> = {
  day: ['day.format', 'must be a day that exists, in the order that was chosen'],
  mass: ['number.base', 'must be a weight'],
  count: ['number.base', 'must be a number'],
  celsius: ['number.base', 'must be a temperature in °C'],
};

export const wrong = (field: string, code: string, message: string): FieldProblem => ({
  field,
  code,
  message,
});
