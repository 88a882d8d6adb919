import {
  IMPORT_KINDS,
  importFields,
  type ImportKind,
  type ImportPlan,
  type ImportWord,
} from '@karyotome/contract';
import { isHeadingOf, folded, USUALLY_FIXED } from './import-words.ts';
import { markOf, orderOf, unitIn } from './cell-styles.ts';
import { cellsOf, readTable, type Table } from './read-table.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'propose-import': typeof proposeImport;
  }
}

/** What a collection has said before: of words, and under the field `column` of headings. */
export type Remembered = readonly ImportWord[];

/** Under which field it is remembered what a heading stands for. */
export const HEADING = 'column';

/** What is known of the collection that files are read for. */
export interface Habits {
  readonly remembered: Remembered;
  readonly isInOunces: boolean;
}

/** Reads a file so far that it can be told how it is probably to be read. Run in a thread. */
export function proposeImport({ bytes, habits }: { bytes: Uint8Array; habits: Habits }): ImportPlan {
  return proposePlan(readTable(bytes), habits);
}

/** How a file is probably to be read; whoever brings it corrects that. */
function proposePlan(table: Table, { remembered, isInOunces }: Habits): ImportPlan {
  const { kind, columns } = IMPORT_KINDS.map((one) => ({
    kind: one,
    columns: proposeColumns(one, table.titles, remembered),
  }))
    .map((one) => ({ ...one, fit: fitOf(one.kind, one.columns) }))
    .reduce((best, one) => (one.fit > best.fit ? one : best));
  return planOf(table, kind, columns, isInOunces);
}

/** The same file read as another kind of table. */
export function proposeFor(table: Table, kind: ImportKind, { remembered, isInOunces }: Habits): ImportPlan {
  return planOf(table, kind, proposeColumns(kind, table.titles, remembered), isInOunces);
}

function planOf(table: Table, kind: ImportKind, columns: (string | null)[], isInOunces: boolean): ImportPlan {
  const fields = importFields(kind);
  const [unit] = table.titles.flatMap((title, i) => {
    const field = columns[i];
    return (field != null && fields[field]!.type === 'mass' && unitIn(title)) || [];
  });
  return {
    kind,
    columns,
    dates: orderOf(cellsOf(table, { kind, columns }, 'day'), 'dmy').order,
    decimals: markOf(cellsOf(table, { kind, columns }, 'mass', 'celsius')),
    masses: unit ?? (isInOunces ? 'oz' : 'g'),
    fixed: Object.entries(USUALLY_FIXED[kind] ?? {})
      .filter(([field]) => !columns.includes(field))
      .map(([field, value]) => ({ field, value })),
    words: [],
  };
}

function proposeColumns(
  kind: ImportKind,
  titles: readonly string[],
  remembered: Remembered,
): (string | null)[] {
  const fields = Object.keys(importFields(kind));
  const taken = new Set<string>();
  return titles.map((title) => {
    const before = remembered.find(({ field, word }) => field === HEADING && word === folded(title))?.value;
    const found =
      before != null && fields.includes(before) && !taken.has(before)
        ? before
        : fields.find((field) => !taken.has(field) && isHeadingOf(field, withoutBrackets(title)));
    if (found === undefined) return null;
    taken.add(found);
    return found;
  });
}

const withoutBrackets = (title: string): string => title.replace(/[([].*[)\]]\s*$/, '');

/** How well a kind fits: what it needs and is there counts most; what it needs and is not there tells against it. */
function fitOf(kind: ImportKind, columns: readonly (string | null)[]): number {
  const rules = Object.entries(importFields(kind));
  const has = (field: string): boolean => columns.includes(field);
  const needed = rules.filter(([, { isRequired }]) => isRequired);
  // Parents alone are a kind of file only where there are some.
  const isEmpty = kind === 'parents' && !has('dam') && !has('sire');
  const missing = needed.filter(([field]) => !has(field)).length + (isEmpty ? 1 : 0);
  return rules.filter(([field]) => has(field)).length - 1.5 * missing;
}
