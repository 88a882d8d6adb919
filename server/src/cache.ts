import { LRUCache } from 'lru-cache';

/** A handful of collections fit in memory; the one that was asked for longest ago goes first. */
const MAX_CACHED_COLLECTIONS = 8;

/**
 * What is kept of collections, by their id. An entry says itself what it depends on (a revision, a day, a stamp) and is
 * replaced when that moved on.
 */
export const createCollectionCache = <Value extends object>(): LRUCache<string, Value> =>
  new LRUCache({ max: MAX_CACHED_COLLECTIONS });

/** What is kept under a key that holds everything it depends on. @param max - so many entries */
export const createCache = <Value extends object>(max: number): LRUCache<string, Value> =>
  new LRUCache({ max });
