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
  function say(text: string, undo?: () => Promise<void>): void {
    current.value = undo ? { text, undo } : { text };
  }
  function warn(text: string): void {
    current.value = { text, isError: true };
  }
  function clear(): void {
    current.value = null;
  }
  return { current, say, warn, clear };
});
