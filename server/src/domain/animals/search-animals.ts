import { hasAllWords, type ListQuery } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import { geneticsSoon } from '../genetics/genetics.service.ts';
import { labelOf } from '../genetics/inferred-of-animal.ts';
import { animalIds, searchTexts } from './animals.repository.ts';
import { filterAnimals, readSearch } from './filter-animals.ts';

/**
 * The ids of the animals that were asked for, in the order that was asked for. `search` is a filter in words ("female, over
 * 1200 g"), or else words of which each is found in the number, the name, the genes, the room or the rack.
 */
export async function searchAnimals(work: Work, query: ListQuery): Promise<string[]> {
  const { sort } = query;
  const search = query['search'] == null ? null : String(query['search']);
  const byGenes = sort === 'label' || sort === '-label';
  // Genes are not in the database: what is inferred of them is read here.
  const ids = await animalIds(work, byGenes ? { ...query, sort: null } : query);
  if (search === null && !byGenes) return ids;
  const genetics = await geneticsSoon(work);
  const label = (id: string): string => labelOf(genetics, id);
  if (byGenes) {
    const sign = sort === 'label' ? 1 : -1;
    ids.sort((one, other) => sign * compareText(label(one), label(other)));
  }
  if (search === null) return ids;
  const filter = await readSearch(work, genetics, search);
  if (filter.isFilter) return filterAnimals(work, genetics, filter, ids);
  const texts = await searchTexts(work);
  return ids.filter((id) => hasAllWords(`${texts[id]} ${label(id)}`, search));
}

const compareText = (one: string, other: string): number => Number(one > other) - Number(one < other);
