import { transfer, wrap } from 'comlink';
import { onScopeDispose, ref, shallowRef } from 'vue';
import type { VerifyAnswer, VerifyApi } from './verify.worker.ts';

/** Verifies one file after the other, in a worker: another one ends the work on the one before. */
export function useVerify() {
  const answer = shallowRef<VerifyAnswer | null>(null);
  const fileName = ref<string | null>(null);
  const isRunning = ref(false);
  let worker: Worker | null = null;

  function stop(): void {
    worker?.terminate();
    worker = null;
    isRunning.value = false;
  }

  async function verify(file: Pick<File, 'name' | 'arrayBuffer'>): Promise<void> {
    stop();
    answer.value = null;
    fileName.value = file.name;
    isRunning.value = true;
    const own = new Worker(new URL('./verify.worker.ts', import.meta.url), { type: 'module' });
    worker = own;
    const bytes = new Uint8Array(await file.arrayBuffer());
    const found = await wrap<VerifyApi>(own)
      .verify(transfer(bytes, [bytes.buffer]))
      .catch((error: unknown): VerifyAnswer => {
        // Nothing that a file may hold ends here: it is our own fault, and told as such.
        console.error(error);
        return { refused: { code: 'unread', path: 'file', message: 'cannot be read here' } };
      });
    // Another file was chosen meanwhile.
    if (worker !== own) return;
    answer.value = found;
    stop();
  }
  onScopeDispose(stop);
  return { answer, fileName, isRunning, verify };
}
