/** A part of a list. */
export interface Page<Item> {
  readonly items: Item[];
  /** Where the next page begins; null at the end. */
  readonly next: string | null;
  /** How many there are in all, after filtering. */
  readonly total: number;
}

/** How a list can be asked for. */
export interface ListRules {
  /** What tells an item from the others. */
  readonly key: string;
  /** What it can be sorted by. As it comes, where none is asked for. */
  readonly sorts: readonly string[];
  /** Which values can be asked for, each by its name. */
  readonly filters: readonly string[];
}

/** Items of a page, where nothing else is asked for, and the most. */
export const PAGE_SIZE = { usual: 50, most: 200 } as const;

/**
 * The query of a list: `limit`, `after`, `sort` (a field, with `-` before it downwards), and its filters. With `format=csv` all of
 * it is answered as a table.
 */
export interface ListQuery {
  readonly limit: number;
  readonly after: string | null;
  readonly sort: string | null;
  readonly [filter: string]: string | number | null;
}
