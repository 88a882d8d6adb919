import { useQuery } from '@pinia/colada';
import { toValue, type MaybeRefOrGetter } from 'vue';
import { api } from '../api/resources.ts';

/* What is read from the server, by key. A write makes all of them stale. */

export const useToday = () => useQuery({ key: ['today'], query: api.today });
export const useAnimals = () => useQuery({ key: ['animals'], query: api.animals });
export const useAnimal = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['animal', toValue(id)], query: () => api.animal(toValue(id)) });
export const usePairings = () => useQuery({ key: ['pairings'], query: api.pairings });
export const useBench = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['bench', toValue(id)], query: () => api.bench(toValue(id)) });
export const useRacks = () => useQuery({ key: ['racks'], query: api.racks });
export const useLadders = () => useQuery({ key: ['ladders'], query: api.ladders });
export const useShowcase = () => useQuery({ key: ['showcase'], query: api.showcase });
export const usePublished = (slug: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['published', toValue(slug)], query: () => api.published(toValue(slug)) });
