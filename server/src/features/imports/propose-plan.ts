import {
  IMPORT_KINDS,
  importFields,
  type ImportKind,
  type ImportPlan,
  type ImportWord,
} from '@karyotome/contract';
import { isHeadingOf, folded, USUALLY_FIXED } from './import-words.ts';
import { markOf, orderOf, unitIn } from './cell-styles.ts';
import type { Table } from './read-table.ts';

/** What a collection has said before: of words, and under the field `column` of headings. */
export type Remembered = readonly ImportWord[];

/** Under which field it is remembered what a heading stands for. */
export const HEADING = 'column';

/** How a file is probably to be read; whoever brings it corrects that. */
export function proposePlan(table: Table, remembered: Remembered, isPounds: boolean): ImportPlan {
  const { kind, columns } = IMPORT_KINDS.map((one) => ({
    kind: one,
    columns: proposeColumns(one, table.titles, remembered),
  }))
    .map((one) => ({ ...one, fit: fitOf(one.kind, one.columns) }))
    .reduce((best, one) => (one.fit > best.fit ? one : best));
  return planOf(table, kind, columns, isPounds);
}

/** The same file read as another kind of table. */
export function proposeFor(
  table: Table,
  kind: ImportKind,
  remembered: Remembered,
  isPounds: boolean,
): ImportPlan {
  return planOf(table, kind, proposeColumns(kind, table.titles, remembered), isPounds);
}

function planOf(table: Table, kind: ImportKind, columns: (string | null)[], isPounds: boolean): ImportPlan {
  const fields = importFields(kind);
  const cellsOf = (...types: readonly string[]): string[] =>
    columns.flatMap((field, i) =>
      field !== null && types.includes(fields[field]!.type)
        ? table.rows.map((row) => (row[i] ?? '').trim()).filter((cell) => cell !== '')
        : [],
    );
  const massTitle = table.titles.find((_, i) => {
    const field = columns[i];
    return field != null && fields[field]!.type === 'mass' && unitIn(table.titles[i]!) !== null;
  });
  return {
    kind,
    columns,
    dates: orderOf(cellsOf('day'), 'dmy').order,
    decimals: markOf(cellsOf('mass', 'celsius')),
    masses: (massTitle === undefined ? null : unitIn(massTitle)) ?? (isPounds ? 'oz' : 'g'),
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
        : fields.find((field) => !taken.has(field) && isHeadingOf(field, withoutUnit(title)));
    if (found === undefined) return null;
    taken.add(found);
    return found;
  });
}

const withoutUnit = (title: string): string => title.replace(/[([].*[)\]]\s*$/, '');

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
