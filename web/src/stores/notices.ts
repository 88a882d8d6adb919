import { defineStore } from 'pinia';
import { ref } from 'vue';

export interface Notice {
  readonly text: string;
  readonly undo?: () => Promise<void>;
  readonly isError?: boolean;
}

/** One line at the bottom of the screen: what was just done, and the way back. */
export const useNotices = defineStore('notices', () => {
  const current = ref<Notice | null>(null);
  /** Counts notices: each stands for its own time, not for what the one before it had left. */
  const turn = ref(0);
  function say(text: string, undo?: () => Promise<void>): void {
    current.value = undo ? { text, undo } : { text };
    turn.value += 1;
  }
  function warn(text: string): void {
    current.value = { text, isError: true };
    turn.value += 1;
  }
  function clear(): void {
    current.value = null;
  }
  return { current, turn, say, warn, clear };
});
