import { hasAllWords, SEARCH_HITS, type SearchView } from '@karyotome/contract';
import { clutchName } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { summariesInOrder } from '../animals/animals.service.ts';
import { searchAnimals } from '../animals/search-animals.ts';
import { clutchRows, personHits } from './search.queries.ts';

/**
 * What all words stand in, in whatever order: animals by number, name, genes or place, clutches by name or their female, people by
 * name.
 *
 * @param withPersons - whether whoever asks may see the address book
 */
export async function search(work: Work, words: string, withPersons: boolean): Promise<SearchView> {
  if (words === '') return { animals: [], clutches: [], persons: [] };
  const ids = await searchAnimals(work, { limit: SEARCH_HITS, after: null, sort: null, search: words });
  const clutches = (await clutchRows(work))
    .map(({ season, ordinal, ...clutch }) => ({ ...clutch, name: clutchName(season, ordinal) }))
    .filter(({ name, dam }) => hasAllWords(`clutch ${name} ${dam}`, words));
  return {
    animals: await summariesInOrder(work, ids.slice(0, SEARCH_HITS)),
    clutches: clutches.slice(0, SEARCH_HITS),
    persons: withPersons ? await personHits(work, { words: words.split(/\s+/), limit: SEARCH_HITS }) : [],
  };
}
