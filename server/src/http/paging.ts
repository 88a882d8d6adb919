import type { ListQuery, ListRules, Page } from '@karyotome/contract';
import type { Request } from 'express';
import { cursorText, readCursor } from '../cursor.ts';
import { invalidField } from '../refusal.ts';

/** Where the last page ended: the place of its last item, and what tells that item from the others. */
type Cursor = readonly [place: number, key: string];

/** What an address asks of a list, not checked yet: in an address, numbers are text. */
export function listQueryOf({ query }: Pick<Request, 'query'>): object {
  const { limit } = query;
  return typeof limit === 'string' && /^\d{1,9}$/.test(limit) ? { ...query, limit: Number(limit) } : query;
}

/** The page of a list that was asked for. @throws Refusal `invalid` for a cursor that is none */
export function pageOf<Item extends object>(
  items: readonly Item[],
  rules: ListRules,
  query: ListQuery,
): Page<Item> {
  const found = sorted(
    items.filter((item) => rules.filters.every((field) => fits(item, field, query[field] ?? null))),
    query.sort,
  );
  return cutPage(found, (item) => String(valueOf(item, rules.key)), query);
}

/** The page that was asked for, of what is filtered and sorted already. @throws Refusal `invalid` for a cursor that is none */
export function cutPage<Item>(
  found: readonly Item[],
  keyOf: (item: Item) => string,
  query: Pick<ListQuery, 'after' | 'limit'>,
): Page<Item> {
  const from = query.after === null ? 0 : placeAfter(found, keyOf, cursorOf(query.after));
  const page = found.slice(from, from + query.limit);
  const end = from + page.length;
  const last = page.at(-1);
  return {
    items: page,
    next: last !== undefined && end < found.length ? cursorText([end - 1, keyOf(last)]) : null,
    total: found.length,
  };
}

const valueOf = (item: object, field: string): unknown => (item as Record<string, unknown>)[field];

const fits = (item: object, field: string, wanted: string | number | null): boolean =>
  wanted === null || String(valueOf(item, field)) === String(wanted);

/** By a field; what has none comes last, equal ones stay as they come. */
function sorted<Item extends object>(items: readonly Item[], sort: string | null): readonly Item[] {
  if (sort === null) return items;
  const isDown = sort.startsWith('-');
  const field = isDown ? sort.slice(1) : sort;
  return items.toSorted((one, other) => {
    const [a, b] = [valueOf(one, field), valueOf(other, field)];
    if (a === null || b === null) return Number(a === null) - Number(b === null);
    const order = (a as string | number) < (b as string | number) ? -1 : a === b ? 0 : 1;
    return isDown ? -order : order;
  });
}

/** After the item where the last page ended, wherever it is now; at its old place where it is gone. */
function placeAfter<Item>(
  items: readonly Item[],
  keyOf: (item: Item) => string,
  [place, key]: Cursor,
): number {
  const now = items.findIndex((item) => keyOf(item) === key);
  return now === -1 ? place : now + 1;
}

function cursorOf(text: string): Cursor {
  const [place, key] = readCursor(text, ['number', 'string']);
  const refused = invalidField('after', 'is no cursor of this list');
  if (!Number.isSafeInteger(place) || (place as number) < 0) throw refused;
  return [place as number, key as string];
}
