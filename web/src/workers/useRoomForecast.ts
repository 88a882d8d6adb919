import type { Mending, RoomForecast, RoomQuestion } from '@karyotome/core';
import { onScopeDispose, ref, shallowRef, watch } from 'vue';
import type { FromRoom } from './room.worker.ts';

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
  watch(
    () => JSON.stringify(question()),
    () => {
      cancel();
      const asked = question();
      if (!asked || asked.kinds.length === 0) return;
      mending.value = null;
      progress.value = 0;
      worker = new Worker(new URL('./room.worker.ts', import.meta.url), { type: 'module' });
      worker.addEventListener('message', ({ data }: MessageEvent<FromRoom>) => {
        if ('progress' in data) progress.value = data.progress;
        else if ('forecast' in data) {
          forecast.value = data.forecast;
          progress.value = null;
        } else {
          mending.value = data.mendings;
          cancel();
        }
      });
      // Reactive objects cannot be sent to a worker as they are.
      worker.postMessage(JSON.parse(JSON.stringify(asked)));
    },
    { immediate: true },
  );
  onScopeDispose(cancel);
  return { forecast, mending, progress, cancel };
}
