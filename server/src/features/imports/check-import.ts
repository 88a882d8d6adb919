import { importFields, type ImportPlan, type ImportRowProblem, type ImportView } from '@karyotome/contract';
import { createCatalogue, toAdditions } from '@karyotome/core';
import type { Progress } from '../../threads/pool.ts';
import { readDay, orderOf } from './cell-styles.ts';
import { toAnimals } from './check-animals.ts';
import { toClutches } from './check-clutches.ts';
import { toParents, toRecordItems } from './check-records.ts';
import type { FileItems, ImportGround } from './file-items.ts';
import { proposeFor, type Habits } from './propose-plan.ts';
import { readRows, wordsOf, type ReadRow } from './read-rows.ts';
import { cellsOf, readTable, type Table } from './read-table.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'check-import': typeof checkImport;
  }
}

/** What is seen of a file, and what it would bring in. */
export interface CheckedImport {
  readonly seen: Pick<
    ImportView,
    | 'encoding'
    | 'separator'
    | 'columns'
    | 'plan'
    | 'dates'
    | 'missing'
    | 'words'
    | 'shown'
    | 'problems'
    | 'good'
    | 'bad'
  >;
  /** Rows that are right. */
  readonly items: FileItems;
}

const EXAMPLES = 4;
const SHOWN_ROWS = 50;
/** More faults than this are not read by anybody at once. */
const PROBLEMS_TOLD = 300;
const EXAMPLE_LENGTH = 60;

/**
 * Reads a file and finds everything that is wrong with it: with its cells, and against the collection. In time that grows with
 * the file; run in a thread.
 *
 * @param plan - how it is to be read. A plan of another kind than its columns is proposed anew.
 */
export function checkImport(
  { bytes, plan: said, ground }: { bytes: Uint8Array; plan: ImportPlan; ground: ImportGround },
  progress: Progress = () => undefined,
): CheckedImport {
  const table = readTable(bytes);
  const { remembered } = ground;
  const plan = fitting(said, table, ground);
  const fields = importFields(plan.kind);
  const missing = Object.keys(fields).filter(
    (field) =>
      fields[field]!.isRequired &&
      !plan.columns.includes(field) &&
      !plan.fixed.some((one) => one.field === field),
  );
  // Without a needed column each row would say so: it is said once.
  const rows = missing.length === 0 ? readRows(table, plan, remembered, progress) : [];
  const items = itemsOf(plan, rows, ground);
  const bad = rows.filter(({ problems }) => problems.length > 0);
  return {
    seen: {
      encoding: table.encoding,
      separator: table.separator,
      columns: table.titles.map((title, i) => ({ title, examples: examplesOf(table, i) })),
      plan,
      dates: datesOf(table, plan),
      missing,
      words: wordsOf(table, plan, remembered),
      shown: rows
        .filter(({ problems }) => problems.length === 0)
        .slice(0, SHOWN_ROWS)
        .map(({ line, values }) => ({ line, values: { ...values } })),
      good: rows.length - bad.length,
      bad: bad.length,
      problems: bad.flatMap(toldOf).slice(0, PROBLEMS_TOLD),
    },
    items,
  };
}

/** A plan as it can be followed: made for another kind of table, its columns are proposed anew. */
function fitting(plan: ImportPlan, table: Table, habits: Habits): ImportPlan {
  const fields = importFields(plan.kind);
  const isOfKind = plan.columns.every((field) => field === null || field in fields);
  if (!isOfKind || plan.columns.length !== table.titles.length) return proposeFor(table, plan.kind, habits);
  return {
    ...plan,
    fixed: plan.fixed.filter(
      ({ field, value }) =>
        field in fields &&
        !plan.columns.includes(field) &&
        (fields[field]!.type !== 'word' || fields[field]!.values!.includes(value)),
    ),
    words: plan.words.filter(
      ({ field, value }) =>
        fields[field]?.type === 'word' && (value === null || fields[field].values!.includes(value)),
    ),
  };
}

function itemsOf(plan: ImportPlan, rows: readonly ReadRow[], ground: ImportGround): FileItems {
  switch (plan.kind) {
    case 'animals': {
      const catalogue = createCatalogue(toAdditions(ground.entries));
      return { kind: plan.kind, items: toAnimals(rows, ground, catalogue) };
    }
    case 'parents':
      return { kind: plan.kind, items: toParents(rows, ground) };
    case 'clutches':
      return { kind: plan.kind, items: toClutches(rows, ground) };
    default:
      return { kind: plan.kind, items: toRecordItems(plan.kind, rows, ground) };
  }
}

const examplesOf = ({ rows }: Table, column: number): string[] => {
  const found = new Set<string>();
  for (const row of rows) {
    const cell = (row[column] ?? '').trim().slice(0, EXAMPLE_LENGTH);
    if (cell !== '') found.add(cell);
    if (found.size === EXAMPLES) break;
  }
  return [...found];
};

/** A day of the file that shows best how days are read: one that the other orders would read otherwise. */
function datesOf(table: Table, plan: ImportPlan): ImportView['dates'] {
  const days = cellsOf(table, plan, 'day');
  const readable = days.filter((day) => readDay(day, plan.dates) !== null);
  const other = plan.dates === 'mdy' ? 'dmy' : 'mdy';
  const text =
    readable.find((day) => readDay(day, other) !== readDay(day, plan.dates)) ?? readable[0] ?? null;
  if (text === null) return null;
  return { text, day: readDay(text, plan.dates)!, isSure: orderOf(days, plan.dates).isSure };
}

const toldOf = ({ line, cells, problems }: ReadRow): ImportRowProblem[] =>
  problems.map((problem) => ({
    ...problem,
    line,
    cell: (cells[problem.field] ?? '').slice(0, EXAMPLE_LENGTH),
  }));
