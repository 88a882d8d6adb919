import type { BenchView, HatchlingView } from '@karyotome/contract';
import { useQueryCache } from '@pinia/colada';
import { computed, ref, watch, type Ref } from 'vue';
import { isUnanswered, ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useStaleReads } from '../../stores/useStaleReads.ts';

export interface Group {
  readonly name: string;
  readonly animalIds: readonly string[];
}
/** Groups that the server does not have yet, and the version that they were made from. */
interface Unsaved {
  readonly version: number;
  readonly groups: readonly Group[];
}
/** Index of the box that all of them come from. */
export const BOX = -1;

/**
 * A clutch sorted into groups: like with like, the rest still in its box. Each change is saved at once, and kept in this
 * browser until the server has it: a page that is left or loaded again meanwhile sends it afterwards.
 */
export function useSorting(clutchId: string, bench: Ref<BenchView | undefined>) {
  const { draft } = useDraft<{ unsaved: Unsaved | null }>(`sorting.${clutchId}`, () => ({ unsaved: null }));
  const groups = ref<readonly Group[]>([]);
  const notices = useNotices();
  const cache = useQueryCache();
  const stale = useStaleReads();
  let version = 0;
  let isSaving = false;

  watch(
    bench,
    (view) => {
      if (!view || isSaving || view.sortingVersion < version) return;
      if (draft.unsaved) {
        ({ version, groups: groups.value } = draft.unsaved);
        void save();
        return;
      }
      version = view.sortingVersion;
      groups.value = view.groups;
    },
    { immediate: true },
  );

  const inBox = computed(() => {
    const sorted = new Set(groups.value.flatMap(({ animalIds }) => animalIds));
    return (bench.value?.hatchlings ?? []).filter(({ id }) => !sorted.has(id));
  });
  const membersOf = ({ animalIds }: Group): HatchlingView[] =>
    animalIds.flatMap((id) => (bench.value?.hatchlings ?? []).find((one) => one.id === id) ?? []);
  const groupOf = (id: string): number => groups.value.findIndex(({ animalIds }) => animalIds.includes(id));

  function lay(next: readonly Group[]): void {
    groups.value = next;
    draft.unsaved = { version, groups: next };
    void save();
  }

  /** Puts an animal into a group, or back into the box. */
  function put(id: string, group: number): void {
    lay(
      groups.value.map(({ name, animalIds }, g) => {
        const others = animalIds.filter((one) => one !== id);
        return { name, animalIds: g === group ? [...others, id] : others };
      }),
    );
  }

  /** Lays a group's members as they were dragged; each lies in one place only. */
  function arrange(group: number, ids: readonly string[]): void {
    lay(
      groups.value.map(({ name, animalIds }, g) => ({
        name,
        animalIds: g === group ? [...ids] : animalIds.filter((id) => !ids.includes(id)),
      })),
    );
  }

  function add(name: string, ids: readonly string[] = []): void {
    const without = groups.value.map((group) => ({
      ...group,
      animalIds: group.animalIds.filter((id) => !ids.includes(id)),
    }));
    lay([...without, { name, animalIds: [...ids] }]);
  }
  const rename = (group: number, name: string): void =>
    lay(groups.value.map((one, g) => (g === group ? { ...one, name } : one)));
  const remove = (group: number): void => lay(groups.value.filter((_, g) => g !== group));

  async function save(): Promise<void> {
    if (isSaving) return;
    isSaving = true;
    try {
      while (draft.unsaved) {
        const laid = groups.value;
        const plain = laid.map(({ name, animalIds }) => ({ name, animalIds: [...animalIds] }));
        version = (await api.changeSorting(clutchId, { groups: plain }, version)).version;
        draft.unsaved = groups.value === laid ? null : { version, groups: groups.value };
      }
      await stale.markOwnStale();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      notices.warn(
        error.problem.status === 412
          ? 'Somebody else sorted this clutch in the meantime: this is how it lies now'
          : error.message,
      );
      if (isUnanswered(error.problem)) return;
      version = 0;
      draft.unsaved = null;
      await cache.invalidateQueries({ key: ['bench', clutchId] });
    } finally {
      isSaving = false;
    }
  }
  return { groups, inBox, membersOf, groupOf, put, arrange, add, rename, remove };
}
