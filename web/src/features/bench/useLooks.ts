import type { BenchView, HatchlingView } from '@karyotome/contract';
import type { Sighting } from '@karyotome/core';
import { useQueryCache } from '@pinia/colada';
import { onScopeDispose, ref, watch, type Ref } from 'vue';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { useDraft } from '../../stores/useDraft.ts';

/** Null: nothing can be said. */
export type Mark = Sighting | null;

const SAVE_AFTER_MS = 350;

/**
 * What was seen of each one of a clutch. A touch shows at once, is kept in this browser until the server has it, and is
 * laid over what somebody else saw meanwhile.
 */
export function useLooks(clutchId: string, bench: Ref<BenchView | undefined>) {
  const { draft } = useDraft<{ pending: Record<string, Record<string, Mark>> }>(`looks.${clutchId}`, () => ({
    pending: {},
  }));
  const versions = new Map<string, number>();
  const saved = ref<Record<string, Record<string, Sighting>>>({});
  const failed = ref<string | null>(null);
  const cache = useQueryCache();
  const timers = new Map<string, ReturnType<typeof setTimeout>>();

  watch(
    bench,
    (view) => {
      for (const { id, sightings, lookVersion } of view?.hatchlings ?? []) {
        if (lookVersion < (versions.get(id) ?? 0)) continue;
        versions.set(id, lookVersion);
        saved.value[id] = sightings;
      }
      for (const id of Object.keys(draft.pending)) schedule(id);
    },
    { immediate: true },
  );

  /** What is seen of an animal, touches that are not saved yet included. */
  function sightingsOf({ id, sightings }: Pick<HatchlingView, 'id' | 'sightings'>): Record<string, Sighting> {
    return laidOver(saved.value[id] ?? sightings, draft.pending[id] ?? {});
  }

  function mark(id: string, tell: string, state: Mark): void {
    draft.pending[id] = { ...draft.pending[id], [tell]: state };
    schedule(id);
  }

  /** Takes back all that was seen of an animal: for a look afresh, after a shed. */
  function clear(id: string): void {
    const seen = laidOver(saved.value[id] ?? {}, draft.pending[id] ?? {});
    for (const tell of Object.keys(seen)) mark(id, tell, null);
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
    const sightings = laidOver(saved.value[id] ?? {}, sent);
    try {
      const { version } = await api.changeLook(id, { sightings }, versions.get(id) ?? 0);
      versions.set(id, version);
      saved.value[id] = sightings;
      // What was touched while it was on its way stays.
      const left = Object.entries(draft.pending[id] ?? {}).filter(([tell, state]) => sent[tell] !== state);
      if (left.length > 0) draft.pending[id] = Object.fromEntries(left);
      else delete draft.pending[id];
      failed.value = null;
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
  return { sightingsOf, mark, clear, failed };
}

function laidOver(
  under: Readonly<Record<string, Sighting>>,
  over: Readonly<Record<string, Mark>>,
): Record<string, Sighting> {
  return Object.fromEntries(
    Object.entries({ ...under, ...over }).filter((entry): entry is [string, Sighting] => entry[1] !== null),
  );
}
