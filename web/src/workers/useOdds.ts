import { onScopeDispose, ref, toRaw, toValue, watch, type MaybeRefOrGetter } from 'vue';
import type { CatalogueEntry } from '@karyotome/core';
import { useCatalogueEntries } from '../stores/queries.ts';
import type { OddsAnswer, OddsRequest } from './odds.worker.ts';

/** Odds of a pair while it is being chosen, computed off the main thread; a newer question overtakes the older. */
export function useOdds(question: MaybeRefOrGetter<{ dam: string; sires: readonly string[] } | null>) {
  const worker = new Worker(new URL('./odds.worker.ts', import.meta.url), { type: 'module' });
  const answer = ref<OddsAnswer['bySire'] | null>(null);
  const { data: own } = useCatalogueEntries();
  // Out of the reactive shell: a proxy cannot be posted.
  const entriesOf = (): CatalogueEntry[] =>
    (own.value?.entries ?? []).map(({ entry }) => ({ ...toRaw(entry) }));
  let latest = 0;
  worker.addEventListener('message', ({ data }: MessageEvent<OddsAnswer>) => {
    if (data.id === latest) answer.value = data.bySire;
  });
  watch(
    () => toValue(question),
    (asked) => {
      latest += 1;
      answer.value = null;
      if (asked)
        worker.postMessage({
          id: latest,
          dam: asked.dam,
          sires: [...asked.sires],
          entries: entriesOf(),
        } satisfies OddsRequest);
    },
    { immediate: true, deep: true },
  );
  onScopeDispose(() => worker.terminate());
  return { answer };
}
