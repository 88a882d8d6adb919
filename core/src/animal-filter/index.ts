export type { AnimalFilter, Criteria, Criterion, FilteredAnimal } from './criteria.ts';
export { animalTest } from './fits-filter.ts';
export { isFilter, LEAST_CHANCE, readFilter, type FilterContext } from './read-filter.ts';
