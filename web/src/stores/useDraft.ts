import { reactive, watch } from 'vue';

const PREFIX = 'karyotome.draft.';

/**
 * A form's values, kept through navigation and reload until they were sent: nothing typed is lost.
 *
 * @param key - one per form and subject, such as `record.ANIMAL`
 */
export function useDraft<T extends object>(key: string, initial: () => T) {
  const fresh = initial();
  const draft = reactive({ ...fresh, ...read<T>(key) }) as T;
  watch(draft, (value) => localStorage.setItem(PREFIX + key, JSON.stringify(value)), {
    deep: true,
    flush: 'sync',
  });
  /** Back to the initial values, once they were sent or given up. */
  function discard(): void {
    Object.assign(draft, initial());
    localStorage.removeItem(PREFIX + key);
  }
  return { draft, discard };
}

function read<T>(key: string): Partial<T> {
  try {
    return JSON.parse(localStorage.getItem(PREFIX + key) ?? '{}') as Partial<T>;
  } catch {
    return {};
  }
}
