import type { Mending, RoomForecast, RoomQuestion } from '@karyotome/core';
import { proxy, wrap } from 'comlink';
import { onScopeDispose, ref, shallowRef, watch } from 'vue';
import type { RoomApi } from './room.worker.ts';

/** The forecast of a room that changes while it is tried out: a newer question ends the work on an older one. */
export function useRoomForecast(question: () => RoomQuestion | null) {
  const forecast = shallowRef<RoomForecast | null>(null);
  const mending = shallowRef<Mending[] | null>(null);
  const progress = ref<number | null>(null);
  let worker: Worker | null = null;

  function cancel(): void {
    worker?.terminate();
    worker = null;
    progress.value = null;
  }
  /** A worker that was ended meanwhile never answers. */
  async function work(asked: RoomQuestion): Promise<void> {
    worker = new Worker(new URL('./room.worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<RoomApi>(worker);
    let isThere = false;
    // Progress comes another way than the answer, and may come after it.
    const hear = (share: number): void => {
      if (!isThere) progress.value = share;
    };
    const found = await remote.forecast(asked, proxy(hear));
    isThere = true;
    forecast.value = found;
    progress.value = null;
    mending.value = await remote.mendings(asked, found);
    cancel();
  }
  watch(
    () => JSON.stringify(question()),
    async () => {
      cancel();
      const asked = question();
      if (!asked || asked.kinds.length === 0) return;
      mending.value = null;
      progress.value = 0;
      // Reactive objects cannot be sent to a worker as they are.
      await work(JSON.parse(JSON.stringify(asked)) as RoomQuestion);
    },
    { immediate: true },
  );
  onScopeDispose(cancel);
  return { forecast, mending, progress, cancel };
}
