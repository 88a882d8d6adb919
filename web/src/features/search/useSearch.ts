import type { SearchView } from '@karyotome/contract';
import { useQuery } from '@pinia/colada';
import { refDebounced } from '@vueuse/core';
import { computed, shallowRef, type Ref } from 'vue';
import { api } from '../../api/resources.ts';
import { keptRound, type WholeRound } from '../../offline/device.ts';
import { useRound } from '../../offline/useRound.ts';
import { useSession } from '../../stores/session.ts';
import { ofAnimal, ofClutch, ofPerson, ofTarget, racksOf, targetsOf, type Candidate } from './candidates.ts';
import { findIn } from './find.ts';
import { useGenes, usePlaces } from './usePlaces.ts';

const TYPING_MS = 150;
/** A letter alone finds half of everything: it is not asked of the server. */
const LEAST_LETTERS = 2;
const MOST_SHOWN = 12;

/**
 * What can be found from anywhere: at once what this device knows (animals in the racks, racks, genes, places of the
 * application), without a connection too, then what the server knows besides.
 */
export function useSearch(typed: Ref<string>) {
  const session = useSession();
  const places = usePlaces();
  const genes = useGenes();
  const kept = shallowRef<WholeRound | null>(null);
  void keptRound(session.view?.account.id ?? '').then((round) => (kept.value = round));
  const { data: fresh } = useRound();
  const round = computed(() => fresh.value ?? kept.value);
  const targets = computed(() => targetsOf(round.value));

  const own = computed(() => [
    ...targets.value.map(ofTarget),
    ...racksOf(round.value),
    ...places.value,
    ...genes.value,
  ]);

  const settled = refDebounced(typed, TYPING_MS);
  const { data: answer } = useQuery({
    key: () => ['search', settled.value.trim()],
    // Without a connection, what the device knows is all there is.
    query: (): Promise<SearchView | null> => api.search(settled.value.trim()).catch(() => null),
    enabled: () => settled.value.trim().length >= LEAST_LETTERS,
  });
  const answered = computed((): Candidate[] =>
    answer.value
      ? [
          ...answer.value.animals.map(ofAnimal),
          ...answer.value.clutches.map(ofClutch),
          ...answer.value.persons.map(ofPerson),
        ]
      : [],
  );
  const found = computed((): Candidate[] => {
    const here = findIn(own.value, typed.value).slice(0, MOST_SHOWN);
    const known = new Set(here.map(({ key }) => key));
    // The answer may be that to what was typed before.
    const more = findIn(answered.value, typed.value).filter(({ key }) => !known.has(key));
    return [...here.slice(0, MOST_SHOWN - Math.min(more.length, MOST_SHOWN / 2)), ...more].slice(
      0,
      MOST_SHOWN,
    );
  });
  return { found, targets };
}
