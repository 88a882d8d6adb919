import { useQuery } from '@pinia/colada';
import { CATALOGUE, createCatalogue, toAdditions } from '@karyotome/core';
import { computed, toValue, type MaybeRefOrGetter } from 'vue';
import { api } from '../api/resources.ts';

/*
 * What is read from the server. A key begins with the route's name: by it one knows which reads a write makes stale
 * (contract/src/routes/staleness.ts).
 */

export const useToday = () => useQuery({ key: ['today'], query: api.today });
export const useAnimals = () => useQuery({ key: ['animals'], query: api.animals });
export const useAnimal = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['animal', toValue(id)], query: () => api.animal(toValue(id)) });
export const usePairings = () => useQuery({ key: ['pairings'], query: api.pairings });
export const useBench = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['bench', toValue(id)], query: () => api.bench(toValue(id)) });
export const useCalls = () => useQuery({ key: ['calls'], query: api.calls });
export const useSetUpProposal = (clutchId: MaybeRefOrGetter<string>) =>
  useQuery({
    key: () => ['setUpProposal', toValue(clutchId)],
    query: () => api.setUpProposal(toValue(clutchId)),
  });
export const useOutside = (token: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['outside', toValue(token)], query: () => api.outside(toValue(token)) });
export const useSeason = () => useQuery({ key: ['season'], query: api.season });
export const useClutch = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['clutch', toValue(id)], query: () => api.clutch(toValue(id)) });
export const useIncubators = () => useQuery({ key: ['incubators'], query: api.incubators });
export const useHatchRates = () => useQuery({ key: ['hatchRates'], query: api.hatchRates });
export const useCalendarFeeds = () => useQuery({ key: ['calendarFeeds'], query: api.calendarFeeds });
export const usePlanner = () => useQuery({ key: ['planner'], query: api.planner });
export const useFeeding = () => useQuery({ key: ['feeding'], query: api.feeding });
export const useRoom = () => useQuery({ key: ['room'], query: api.room });
export const useLearnedMoves = () => useQuery({ key: ['learnedMoves'], query: api.learnedMoves });
export const useRacks = () => useQuery({ key: ['racks'], query: api.racks });
export const useLadders = () => useQuery({ key: ['ladders'], query: api.ladders });
export const useShowcase = () => useQuery({ key: ['showcase'], query: api.showcase });
export const usePublished = (slug: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['published', toValue(slug)], query: () => api.published(toValue(slug)) });

export const useCatalogueEntries = () => useQuery({ key: ['catalogue'], query: api.catalogue });
/** The genes as this collection has them; the built-in ones until its own are read. */
export function useCatalogue() {
  const { data } = useCatalogueEntries();
  return computed(() => {
    const entries = data.value?.entries ?? [];
    return entries.length === 0 ? CATALOGUE : createCatalogue(toAdditions(entries.map(({ entry }) => entry)));
  });
}
export const useContradictions = () => useQuery({ key: ['contradictions'], query: api.contradictions });
export const useKin = (
  id: MaybeRefOrGetter<string>,
  generations: MaybeRefOrGetter<number>,
  gene: MaybeRefOrGetter<{ locus: string; allele: string } | null>,
) =>
  useQuery({
    key: () => ['kin', toValue(id), toValue(generations), `${toValue(gene)?.locus}/${toValue(gene)?.allele}`],
    query: () => api.kin(toValue(id), toValue(generations), toValue(gene)),
  });
