import type { IsoDay, Observations, Hypothesis } from '@karyotome/core';
import { wrap } from 'comlink';
import { onScopeDispose, shallowReactive, toValue, watch, type MaybeRefOrGetter } from 'vue';
import { catalogueChanges } from '../stores/catalogue-changes.ts';
import { useCatalogueEntries } from '../stores/queries.ts';
import type { RankingAnswer, RankingApi } from './ranking.worker.ts';

/** One animal to be ranked: what its pedigree allows, and what was seen of it. */
export interface Ranked {
  readonly id: string;
  readonly hypotheses: readonly Hypothesis[];
  readonly observations: Observations;
  readonly lastShed: IsoDay | null;
}

/**
 * What each animal of a clutch can be, computed off the main thread: after a touch only the one that was touched anew, and
 * all of them when the pedigree's own odds move.
 */
export function useRankings(animals: MaybeRefOrGetter<readonly Ranked[]>) {
  const worker = new Worker(new URL('./ranking.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<RankingApi>(worker);
  const rankings = shallowReactive(new Map<string, RankingAnswer>());
  /** What was asked last of each animal. */
  const asked = new Map<string, string>();
  const { data: own } = useCatalogueEntries();

  async function rank(id: string, key: string): Promise<void> {
    asked.set(id, key);
    // Out of the reactive shell: a proxy cannot be posted.
    const [hypotheses, observations, lastShed] = JSON.parse(key) as [
      Hypothesis[],
      Observations,
      IsoDay | null,
    ];
    const answer = await remote.rank({ hypotheses, observations, lastShed });
    // An answer to an older question is dropped.
    if (asked.get(id) === key) rankings.set(id, answer);
  }

  function rankChanged(): void {
    for (const { id, hypotheses, observations, lastShed } of toValue(animals)) {
      const key = JSON.stringify([hypotheses, observations, lastShed]);
      if (asked.get(id) !== key && hypotheses.length > 0) void rank(id, key);
    }
  }
  watch(
    own,
    (catalogue) => {
      void remote.setEntries(catalogueChanges(catalogue));
      asked.clear();
      rankChanged();
    },
    { immediate: true },
  );
  // The list is made anew by whoever gives it; what is in it is not watched.
  watch(() => toValue(animals), rankChanged);
  onScopeDispose(() => worker.terminate());
  return { rankings };
}
