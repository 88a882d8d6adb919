import type { ClutchView, EggInput } from '@karyotome/contract';
import { useTimeoutFn } from '@vueuse/core';
import { computed, onScopeDispose, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** The status of a write that was based on a version which somebody else has changed. */
const STALE = 412;
/** A change is sent when the hand has rested for so long. */
const REST_MS = 500;

/**
 * The eggs as they lie in their box, changed at a touch and saved by themselves. What is not saved yet is kept through a
 * reload or a dropped line; what somebody else changed meanwhile is not overwritten without asking.
 */
export function useBox(clutch: () => ClutchView) {
  const { draft, discard } = useDraft<{ eggs: EggInput[] | null }>(`box.${clutch().id}`, () => ({
    eggs: null,
  }));
  const write = useWrite(api.changeBox);
  const saved = computed(() =>
    clutch().eggs.map(({ id, verdict, massG, stuck, marked, x, y }): EggInput => ({
      id,
      verdict,
      massG,
      stuck,
      marked,
      x,
      y,
    })),
  );
  const eggs = computed<readonly EggInput[]>(() => draft.eggs ?? saved.value);
  const past = ref<(readonly EggInput[])[]>([]);
  const isStale = ref(false);
  const timer = useTimeoutFn(() => void save(), REST_MS, { immediate: false });

  function put(next: readonly EggInput[]): void {
    draft.eggs = next.map((egg) => ({ ...egg }));
    timer.start();
  }
  function change(next: readonly EggInput[]): void {
    past.value.push(eggs.value.map((egg) => ({ ...egg })));
    put(next);
  }
  function undo(): void {
    const last = past.value.pop();
    if (last) put(last);
  }

  async function save(): Promise<void> {
    const sending = draft.eggs;
    if (sending === null || isStale.value) return;
    if (write.busy.value) {
      timer.start();
      return;
    }
    const sent = await write.run(clutch().id, { eggs: sending.map((egg) => ({ ...egg })) }, clutch().version);
    if (sent) {
      // Changed again while it was under way: that is sent next.
      if (draft.eggs === sending) discard();
    } else isStale.value = write.status.value === STALE;
  }

  /** What the other saved is taken; what was changed here is given up. */
  function takeTheirs(): void {
    isStale.value = false;
    past.value = [];
    discard();
    write.reset();
  }
  async function saveMine(): Promise<void> {
    isStale.value = false;
    await save();
  }

  // What a reload interrupted is sent now.
  if (draft.eggs !== null) timer.start();
  onScopeDispose(() => {
    timer.stop();
    void save();
  });
  return {
    eggs,
    change,
    undo,
    mayUndo: computed(() => past.value.length > 0),
    isSaved: computed(() => draft.eggs === null),
    isStale,
    problem: write.message,
    takeTheirs,
    saveMine,
  };
}
