import { PAGE_SIZE, type ListQuery, type Page } from '@karyotome/contract';
import type { Request, Response } from 'express';
import { sendTable, tableOf } from './send-table.ts';

/* Any list as a table, as it is filtered and sorted: one row an item, what lies within it under dotted names. */

export const wantsTable = ({ query }: Pick<Request, 'query'>): boolean => query['format'] === 'csv';

/** Every item that is asked for, page after page. */
export async function allItems<Item>(
  page: (query: ListQuery) => Promise<Page<Item>>,
  query: ListQuery,
): Promise<Item[]> {
  const items: Item[] = [];
  for (let after: string | null = null; ;) {
    const found: Page<Item> = await page({ ...query, limit: PAGE_SIZE.most, after });
    items.push(...found.items);
    if (found.next === null) return items;
    after = found.next;
  }
}

type Cell = string | number | boolean | null;

const isPlain = (value: unknown): value is Cell | undefined => value === undefined || Object(value) !== value;

/** @example flat({ tub: { rack: 'A' }, genes: ['Clown', 'Pied'] }) // {"tub.rack": "A", "genes": "Clown; Pied"} */
export function flat(item: object, before = ''): Record<string, Cell> {
  return Object.fromEntries(
    Object.entries(item).flatMap(([name, value]: [string, unknown]) => {
      const key = before + name;
      if (isPlain(value)) return [[key, value ?? null]];
      if (!Array.isArray(value)) return Object.entries(flat(value as object, `${key}.`));
      return [[key, value.every(isPlain) ? value.join('; ') : JSON.stringify(value)]];
    }),
  );
}

/** Rows of a list; columns are those of all items, in the order in which they come. */
export function listTable(items: readonly object[]): string {
  const rows = items.map((item) => flat(item));
  const columns = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  return tableOf(rows.map((row) => Object.fromEntries(columns.map((name) => [name, row[name] ?? null]))));
}

/** @param path - of the list: its last word names the file */
export function sendListTable(response: Response, path: string, items: readonly object[]): void {
  const name = path.split('/').findLast((part) => part !== '' && !part.startsWith(':')) ?? 'list';
  sendTable(response, `${name}.csv`, listTable(items));
}
