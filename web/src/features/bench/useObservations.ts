import type { BenchView, HatchlingView } from '@karyotome/contract';
import type { Observation } from '@karyotome/core';
import { useQueryCache } from '@pinia/colada';
import { onScopeDispose, ref, watch, type Ref } from 'vue';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useStaleReads } from '../../stores/useStaleReads.ts';

/** Null: nothing can be said. */
export type Mark = Observation | null;

const SAVE_AFTER_MS = 350;

/**
 * What was seen of each one of a clutch. A touch shows at once, is kept in this browser until the server has it, and is
 * laid over what somebody else saw meanwhile.
 */
export function useObservations(clutchId: string, bench: Ref<BenchView | undefined>) {
  const { draft } = useDraft<{ pending: Record<string, Record<string, Mark>> }>(
    `observations.${clutchId}`,
    () => ({
      pending: {},
    }),
  );
  const versions = new Map<string, number>();
  const saved = ref<Record<string, Record<string, Observation>>>({});
  const failed = ref<string | null>(null);
  const cache = useQueryCache();
  const stale = useStaleReads();
  const timers = new Map<string, ReturnType<typeof setTimeout>>();

  watch(
    bench,
    (view) => {
      for (const { id, observations, observationsVersion } of view?.hatchlings ?? []) {
        if (observationsVersion < (versions.get(id) ?? 0)) continue;
        versions.set(id, observationsVersion);
        saved.value[id] = observations;
      }
      for (const id of Object.keys(draft.pending)) schedule(id);
    },
    { immediate: true },
  );

  /** What is seen of an animal, touches that are not saved yet included. */
  function observationsOf({
    id,
    observations,
  }: Pick<HatchlingView, 'id' | 'observations'>): Record<string, Observation> {
    return laidOver(saved.value[id] ?? observations, draft.pending[id] ?? {});
  }

  function mark(id: string, marker: string, state: Mark): void {
    draft.pending[id] = { ...draft.pending[id], [marker]: state };
    schedule(id);
  }

  /** Takes back all that was seen of an animal: for a look afresh, after a shed. */
  function clear(id: string): void {
    const seen = laidOver(saved.value[id] ?? {}, draft.pending[id] ?? {});
    for (const marker of Object.keys(seen)) mark(id, marker, null);
  }

  function schedule(id: string): void {
    clearTimeout(timers.get(id));
    timers.set(
      id,
      setTimeout(() => void save(id), SAVE_AFTER_MS),
    );
  }

  async function save(id: string): Promise<void> {
    const sent = draft.pending[id];
    if (!sent) return;
    const observations = laidOver(saved.value[id] ?? {}, sent);
    try {
      const { version } = await api.changeObservations(id, { observations }, versions.get(id) ?? 0);
      versions.set(id, version);
      saved.value[id] = observations;
      // What was touched while it was on its way stays.
      const left = Object.entries(draft.pending[id] ?? {}).filter(
        ([marker, state]) => sent[marker] !== state,
      );
      if (left.length > 0) draft.pending[id] = Object.fromEntries(left);
      else delete draft.pending[id];
      failed.value = null;
      await stale.markOwnStale();
      if (left.length > 0) schedule(id);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      // Somebody else looked too: theirs is read, and this hand's touches are laid over it.
      if (error.problem.status === 412) await cache.invalidateQueries({ key: ['bench', clutchId] });
      else failed.value = error.message;
    }
  }

  onScopeDispose(() => {
    for (const [id, timer] of timers) {
      clearTimeout(timer);
      void save(id);
    }
  });
  return { observationsOf, mark, clear, failed };
}

function laidOver(
  under: Readonly<Record<string, Observation>>,
  over: Readonly<Record<string, Mark>>,
): Record<string, Observation> {
  return Object.fromEntries(
    Object.entries({ ...under, ...over }).filter(
      (entry): entry is [string, Observation] => entry[1] !== null,
    ),
  );
}
