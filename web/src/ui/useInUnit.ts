import type { Unit } from '@karyotome/words';
import { computed, type ComputedRef, type Ref, type WritableComputedRef } from 'vue';

/** A stored number as it is shown and typed in a unit. @param unit - read anew whenever what it depends on changes */
export function useInUnit(
  stored: Ref<number | null | undefined>,
  unit: () => Unit,
): { symbol: ComputedRef<string>; shown: WritableComputedRef<number | null> } {
  return {
    symbol: computed(() => unit().symbol),
    shown: computed({
      get: () => (stored.value == null ? null : unit().toShown(stored.value)),
      set: (value) => (stored.value = value === null ? null : unit().toStored(value)),
    }),
  };
}
