import type { IsoDay, Observations, Hypothesis } from '@karyotome/core';
import { onScopeDispose, shallowReactive, toRaw, toValue, watch, type MaybeRefOrGetter } from 'vue';
import { useCatalogueEntries } from '../stores/queries.ts';
import type { RankingAnswer, RankingMessage } from './ranking.worker.ts';

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
  const marker = (message: RankingMessage): void => worker.postMessage(message);
  const rankings = shallowReactive(new Map<string, RankingAnswer>());
  const asked = new Map<string, { key: string; turn: number }>();
  const { data: own } = useCatalogueEntries();
  worker.addEventListener('message', ({ data }: MessageEvent<RankingAnswer>) => {
    if (asked.get(data.animalId)?.turn === data.turn) rankings.set(data.animalId, data);
  });

  function ask(): void {
    for (const { id, hypotheses, observations, lastShed } of toValue(animals)) {
      const key = JSON.stringify([hypotheses, observations, lastShed]);
      const before = asked.get(id);
      if (before?.key === key || hypotheses.length === 0) continue;
      const turn = (before?.turn ?? 0) + 1;
      asked.set(id, { key, turn });
      // Out of the reactive shell: a proxy cannot be posted.
      const plain = JSON.parse(key) as [Hypothesis[], Record<string, 'seen'>, IsoDay | null];
      marker({ animalId: id, turn, hypotheses: plain[0], observations: plain[1], lastShed });
    }
  }
  watch(
    own,
    (catalogue) => {
      marker({ entries: (catalogue?.entries ?? []).map(({ entry }) => ({ ...toRaw(entry) })) });
      asked.clear();
      ask();
    },
    { immediate: true },
  );
  // The list is made anew by whoever gives it; what is in it is not watched.
  watch(() => toValue(animals), ask);
  onScopeDispose(() => worker.terminate());
  return { rankings };
}
