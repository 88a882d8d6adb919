import { useQuery } from '@pinia/colada';
import type { Page } from '@karyotome/contract';
import { toValue, type MaybeRefOrGetter } from 'vue';
import { api } from '../api/resources.ts';
import { usePages } from './usePages.ts';

/*
 * What is read from the server. A key begins with the route's name: by it one knows which reads a write makes stale
 * (contract/src/routes/staleness.ts).
 */

/** A screen or two of lines: those after them come as one scrolls. */
const TODAY_LINES = 25;

/** @param filter - `act`: of one act alone; `by`: what the lines are gathered by */
export const useToday = (filter: MaybeRefOrGetter<Readonly<Record<string, string>>>) =>
  usePages(
    () => ['today', toValue(filter)],
    (page) => api.today({ ...toValue(filter), ...page }),
    { size: TODAY_LINES },
  );
export const useHealthCases = () => useQuery({ key: ['healthCases'], query: api.healthCases });
export const useMiteWatches = () => useQuery({ key: ['miteWatches'], query: api.miteWatches });
export const useSheds = () => useQuery({ key: ['sheds'], query: api.sheds });
/**
 * @param filter - what the list can be filtered and sorted by, and `search`
 * @param wanted - read only from then on
 */
export const useAnimals = (
  filter: MaybeRefOrGetter<Readonly<Record<string, string>>>,
  wanted: MaybeRefOrGetter<boolean> = true,
) =>
  usePages(
    () => ['animals', toValue(filter)],
    (page) => api.animals({ ...toValue(filter), ...page }),
    { wanted },
  );
/** How a search of animals is read; of an empty one nothing is asked. */
export const useAnimalFilter = (text: MaybeRefOrGetter<string>) =>
  useQuery({
    key: () => ['animalFilter', toValue(text)],
    query: () => api.animalFilter(toValue(text)),
    enabled: () => toValue(text) !== '',
  });
export const useAnimalLists = () => useQuery({ key: ['animalLists'], query: api.animalLists });
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
export const useSeasonFemales = () => usePages(['seasonFemales'], (page) => api.seasonFemales({ ...page }));
export const useSeasonMales = () => usePages(['seasonMales'], (page) => api.seasonMales({ ...page }));
/** One item of a list, by its id; null for one that is not in it. */
const oneOf =
  <Item>(route: string, ask: (filter: { readonly id: string }) => Promise<Page<Item>>) =>
  (id: MaybeRefOrGetter<string | null>) =>
    useQuery({
      key: () => [route, 'one', toValue(id) ?? ''],
      query: async () => (await ask({ id: toValue(id)! })).items[0] ?? null,
      enabled: () => toValue(id) !== null,
    });
/** Whether the collection has any animal, whatever became of it. @param wanted - read only from then on */
export const useHasAnimals = (wanted: MaybeRefOrGetter<boolean>) =>
  useQuery({
    key: ['animals', 'any'],
    query: async () => (await api.animals({ limit: '1' })).total > 0,
    enabled: () => toValue(wanted),
  });
export const useAnimalSummary = oneOf('animals', api.animals);
export const useBoardFemale = oneOf('seasonFemales', api.seasonFemales);
export const useBoardMale = oneOf('seasonMales', api.seasonMales);
/** Of nobody: none. */
export const useRelatedMates = (id: MaybeRefOrGetter<string | null>) =>
  useQuery({
    key: () => ['relatedMates', toValue(id) ?? ''],
    query: () => api.relatedMates(toValue(id)!),
    enabled: () => toValue(id) !== null,
  });
export const useClutch = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['clutch', toValue(id)], query: () => api.clutch(toValue(id)) });
export const useRooms = () => useQuery({ key: ['rooms'], query: api.rooms });
export const useIncubators = () => useQuery({ key: ['incubators'], query: api.incubators });
export const useHatchRates = () => useQuery({ key: ['hatchRates'], query: api.hatchRates });
export const useCalendarFeeds = () => useQuery({ key: ['calendarFeeds'], query: api.calendarFeeds });
export const usePlanner = () => useQuery({ key: ['planner'], query: api.planner });
export const useUnprovenGenes = () => useQuery({ key: ['unprovenGenes'], query: api.unprovenGenes });
export const useGrownLooks = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['grownLooks', toValue(id)], query: () => api.grownLooks(toValue(id)) });
export const useGrowth = (query: MaybeRefOrGetter<Record<string, string>>) =>
  useQuery({
    key: () => ['growth', toValue(query)],
    query: () => api.growth(toValue(query)),
    placeholderData: (before) => before,
  });
export const useProjects = () => useQuery({ key: ['projects'], query: api.projects });
export const useProject = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['project', toValue(id)], query: () => api.project(toValue(id)) });
export const useFeeding = () => useQuery({ key: ['feeding'], query: api.feeding });
export const useFeedingNight = () => useQuery({ key: ['feedingNight'], query: api.feedingNight });
export const useFeedingLessons = () => useQuery({ key: ['feedingLessons'], query: api.feedingLessons });
export const useRoom = () => useQuery({ key: ['room'], query: api.room });
export const useLearnedMoves = () => useQuery({ key: ['learnedMoves'], query: api.learnedMoves });
export const useRacks = () => useQuery({ key: ['racks'], query: api.racks });
/** Some parts of a round, each read once. @param ids - of racks, or `WITHOUT_TUB`; may repeat */
export const useRoundRacks = (ids: MaybeRefOrGetter<readonly string[]>) => {
  const wanted = (): string[] => [...new Set(toValue(ids))].toSorted();
  return useQuery({
    key: () => ['roundRack', ...wanted()],
    query: () => Promise.all(wanted().map(api.roundRack)),
    placeholderData: (before) => before,
  });
};
/** @param wanted - read only from then on */
export const useRack = (id: MaybeRefOrGetter<string>, wanted: MaybeRefOrGetter<boolean> = true) =>
  useQuery({
    key: () => ['rack', toValue(id)],
    query: () => api.rack(toValue(id)),
    enabled: () => toValue(wanted),
  });
/** The free tubs, or also those that somebody lives in. */
export const useTubs = (taken: MaybeRefOrGetter<boolean>) =>
  useQuery({
    key: () => ['tubs', toValue(taken)],
    query: () => api.tubs(toValue(taken) ? {} : { isFree: 'true' }),
    placeholderData: (before) => before,
  });
export const useLadders = () => useQuery({ key: ['ladders'], query: api.ladders });
export const useSales = () => useQuery({ key: ['sales'], query: api.sales });
export const useSalesSettings = () => useQuery({ key: ['salesSettings'], query: api.salesSettings });
export const useDesk = (clutchId: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['desk', toValue(clutchId)], query: () => api.desk(toValue(clutchId)) });
export const useStatusEvents = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['statusEvents', toValue(id)], query: () => api.statusEvents(toValue(id)) });
export const useOffer = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['offer', toValue(id)], query: () => api.offer(toValue(id)) });
export const usePersons = () => useQuery({ key: ['persons'], query: api.persons });
export const useAmendment = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['amendment', toValue(id)], query: () => api.amendment(toValue(id)) });
export const useSigningKeys = () => useQuery({ key: ['signingKeys'], query: api.signingKeys });
export const useShowcase = () => useQuery({ key: ['showcase'], query: api.showcase });
export const useTaken = () => useQuery({ key: ['taken'], query: api.taken });
export const useBreeders = () => useQuery({ key: ['breeders'], query: api.breeders });
export const usePost = () => useQuery({ key: ['post'], query: api.post });
export const useLetters = () => useQuery({ key: ['letters'], query: api.letters });
export const useReceivedLetter = (id: MaybeRefOrGetter<string>) =>
  useQuery({
    key: () => ['receivedLetter', toValue(id)],
    query: () => api.receivedLetter(toValue(id)),
  });
export const useWishes = () => useQuery({ key: ['wishes'], query: api.wishes });
export const usePairingWaits = () => useQuery({ key: ['pairingWaits'], query: api.pairingWaits });
export const useAnimalWaits = (clutchId: MaybeRefOrGetter<string>) =>
  useQuery({
    key: () => ['animalWaits', toValue(clutchId)],
    query: () => api.animalWaits(toValue(clutchId)),
  });
export const useInquiries = () => useQuery({ key: ['inquiries'], query: api.inquiries });

export const useCatalogueEntries = () => useQuery({ key: ['catalogue'], query: api.catalogue });
export const useCatalogueUpdate = () =>
  useQuery({ key: ['tryCatalogueUpdate'], query: api.tryCatalogueUpdate });
export const useDevices = () => useQuery({ key: ['devices'], query: api.devices });
export const useSecondFactor = () => useQuery({ key: ['secondFactor'], query: api.secondFactor });
export const usePasskeys = () => useQuery({ key: ['passkeys'], query: api.passkeys });
export const useWebhooks = () => useQuery({ key: ['webhooks'], query: api.webhooks });
export const useTokens = () => useQuery({ key: ['tokens'], query: api.tokens });
/** @param filter - what the history can be asked for */
export const useHistory = (filter: MaybeRefOrGetter<Readonly<Record<string, string>>>) =>
  usePages(
    () => ['history', toValue(filter)],
    (page) => api.history({ ...toValue(filter), ...page }),
  );
export const useImports = () => useQuery({ key: ['imports'], query: api.imports });
export const useImport = (id: MaybeRefOrGetter<string>) =>
  useQuery({ key: () => ['import', toValue(id)], query: () => api.import(toValue(id)) });
export const useBin = () => useQuery({ key: ['bin'], query: api.bin });
export const useBackup = () => useQuery({ key: ['backup'], query: api.backup });
export const useMembers = () => useQuery({ key: ['members'], query: api.members });
export const useInvitations = () => useQuery({ key: ['invitations'], query: api.invitations });
export const useGeneOccurrence = () => useQuery({ key: ['geneOccurrence'], query: api.geneOccurrence });
export const useSurprises = () => useQuery({ key: ['surprises'], query: api.surprises });
export const useSuspects = () => useQuery({ key: ['suspects'], query: api.suspects });
export const useDoubtful = () => useQuery({ key: ['doubtful'], query: api.doubtful });
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
