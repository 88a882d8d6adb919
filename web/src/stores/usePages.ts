import { useQuery, useQueryCache, type EntryKey } from '@pinia/colada';
import { computed, ref, toValue, watch, type MaybeRefOrGetter } from 'vue';

/** A part of something long: where the next part begins, null at the end. */
interface Part {
  readonly next: string | null;
}

const AT_ONCE = 50;

/**
 * Reads something long part by part, as far as it was asked for; what is read anew is read as far again.
 *
 * @param key - begins with the route's name; another key begins with the first part
 * @param ask - one part, with `limit` and `after` to be sent along
 * @param wanted - read only from then on
 * @param size - of a part
 */
export function usePages<One extends Part>(
  key: MaybeRefOrGetter<EntryKey>,
  ask: (page: { readonly limit: string; readonly after?: string }) => Promise<One>,
  { wanted = true, size = AT_ONCE }: { wanted?: MaybeRefOrGetter<boolean>; size?: number } = {},
) {
  const count = ref(1);
  watch(
    () => JSON.stringify(toValue(key)),
    () => (count.value = 1),
  );
  const cache = useQueryCache();
  /** The parts before the last one that is asked for, where nothing has made them stale. */
  function partsBefore(): readonly One[] {
    const before = cache.get<One[]>([...toValue(key), count.value - 1]);
    return before && before.when > 0 && !isReadAnew() ? (before.state.value.data ?? []) : [];
  }
  /** Something shown is read anew: then all of it is. */
  const isReadAnew = (): boolean => query.data.value?.length === count.value;
  const query = useQuery({
    key: () => [...toValue(key), count.value],
    query: async (): Promise<One[]> => {
      const parts = [...partsBefore()];
      for (
        let after = parts.length === 0 ? '' : parts.at(-1)!.next;
        after !== null && parts.length < count.value;
      ) {
        const part: One = await ask({ limit: String(size), ...(after === '' ? {} : { after }) });
        parts.push(part);
        after = part.next;
      }
      return parts;
    },
    enabled: () => toValue(wanted),
    // What was shown stands until more of it is there.
    placeholderData: (before: One[] | undefined) => before,
  });
  const hasMore = computed(() => (query.data.value?.at(-1)?.next ?? null) !== null);
  function more(): void {
    if (hasMore.value && query.asyncStatus.value !== 'loading') count.value += 1;
  }
  return { ...query, hasMore, more };
}
