import { tryOnScopeDispose, useWakeLock } from '@vueuse/core';
import { watch, type WatchSource } from 'vue';

/** Keeps the screen on while something is so: a hand that holds a snake cannot wake it. */
export function useScreenOn(isOn: WatchSource<boolean>): void {
  const lock = useWakeLock();
  watch(
    isOn,
    (wanted) => {
      if (!lock.isSupported.value) return;
      // A device that saves its battery says no: then the screen goes dark as it always did.
      void (wanted ? lock.request('screen') : lock.release()).catch(() => undefined);
    },
    { immediate: true },
  );
  tryOnScopeDispose(() => void lock.release().catch(() => undefined));
}
