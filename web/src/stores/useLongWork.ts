import type { JobProgress } from '@karyotome/contract';
import { onScopeDispose, ref } from 'vue';
import { ProblemError } from '../api/client.ts';
import type { LongWork } from '../api/call.ts';
import { api } from '../api/resources.ts';

/** How often the server is asked how far it is. */
const ASK_MS = 700;

/** Work of the server that takes long: how far it is, and giving it up. */
export function useLongWork() {
  const progress = ref<JobProgress | null>(null);
  const isRunning = ref(false);
  let giveUp: AbortController | null = null;
  let timer: ReturnType<typeof setInterval> | undefined;

  async function run<T>(send: (work: LongWork) => Promise<T>): Promise<T> {
    const job = crypto.randomUUID();
    giveUp = new AbortController();
    isRunning.value = true;
    progress.value = null;
    timer = setInterval(() => void ask(job), ASK_MS);
    try {
      return await send({ job, signal: giveUp.signal });
    } finally {
      clearInterval(timer);
      isRunning.value = false;
    }
  }

  async function ask(job: string): Promise<void> {
    try {
      progress.value = await api.job(job);
    } catch (error) {
      // Not begun yet, or just done: the answer itself tells.
      if (!(error instanceof ProblemError)) throw error;
    }
  }

  const cancel = (): void => giveUp?.abort();
  onScopeDispose(() => {
    clearInterval(timer);
    cancel();
  });
  return { run, cancel, progress, isRunning };
}
