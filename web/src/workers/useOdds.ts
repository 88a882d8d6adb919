import { wrap } from 'comlink';
import { onScopeDispose, shallowRef, toValue, watch, type MaybeRefOrGetter } from 'vue';
import { useCatalogueEntries } from '../stores/queries.ts';
import { catalogueChanges } from '../stores/catalogue-changes.ts';
import type { OddsApi, SireOdds } from './odds.worker.ts';

/** Odds of a pair while it is being chosen, computed off the main thread; a newer question overtakes the older. */
export function useOdds(question: MaybeRefOrGetter<{ dam: string; sires: readonly string[] } | null>) {
  const worker = new Worker(new URL('./odds.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<OddsApi>(worker);
  const answer = shallowRef<readonly SireOdds[] | null>(null);
  const { data: own } = useCatalogueEntries();
  let latest = 0;
  watch(
    () => toValue(question),
    async (asked) => {
      const turn = ++latest;
      answer.value = null;
      if (!asked) return;
      // Out of the reactive shell: a proxy cannot be posted.
      const entries = catalogueChanges(own.value);
      const bySire = await remote.odds({ dam: asked.dam, sires: [...asked.sires], entries });
      if (turn === latest) answer.value = bySire;
    },
    { immediate: true, deep: true },
  );
  onScopeDispose(() => worker.terminate());
  return { answer };
}
