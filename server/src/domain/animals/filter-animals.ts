import type { AnimalFilterView } from '@karyotome/contract';
import {
  animalTest,
  isFilter,
  readFilter,
  type AnimalFilter,
  type Criterion,
  type FilterContext,
} from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { namedRacks } from '../enclosures/enclosures.queries.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { parentOf } from '../genetics/inferred-of-animal.ts';
import type { Genetics } from '../genetics/genetics.service.ts';
import { rulesOf } from '../season/season-rules.ts';
import { unstoredStates } from '../states/animal-states.ts';
import { stateFactsOf, type StateFacts } from './filtered-state.ts';
import { filteredAnimals } from './filter-animals.queries.ts';

/** Criteria that husbandry has to be computed for. */
const OF_STATE: readonly Criterion['code'][] = [
  'not-eaten',
  'refused',
  'in-shed',
  'gravid',
  'in-quarantine',
  'under-treatment',
  'shows-signs',
];

/** Reads a search of animals as a filter, if it is one. */
export async function readSearch(work: Work, genetics: Genetics, text: string): Promise<AnimalFilterView> {
  const racks = await namedRacks(work);
  const context: FilterContext = {
    today: work.today,
    seasonRules: (await rulesOf(work)).rules,
    places: [...new Set(racks.flatMap(({ name, room }) => [name, room]))],
    massUnit: (await collectionOf(work)).massUnit,
    catalogue: genetics.catalogue,
  };
  const filter = readFilter(text, context);
  return { ...filter, isFilter: isFilter(filter) };
}

/** Of animals, those that a filter asks for, in their order. */
export async function filterAnimals(
  work: Work,
  genetics: Genetics,
  filter: AnimalFilter,
  ids: readonly string[],
): Promise<string[]> {
  const needsState = filter.clauses.flat().some(({ code }) => OF_STATE.includes(code));
  const rows = await filteredAnimals(work, needsState, (await rulesOf(work)).rules);
  const fresh = new Map<string, StateFacts>(
    needsState ? (await unstoredStates(work)).map(({ id, state }) => [id, stateFactsOf(state)]) : [],
  );
  const fits = animalTest(filter, work.today, genetics.catalogue);
  const byId = new Map(rows.map((row) => [row.id, row]));
  return ids.filter((id) => {
    const row = byId.get(id);
    return row !== undefined && fits({ ...row, ...fresh.get(id) }, () => parentOf(genetics, id));
  });
}
