import type { Verification } from '@karyotome/lineage';
import { transfer, wrap } from 'comlink';
import { onScopeDispose, ref, shallowRef } from 'vue';
import type { VerifyAnswer, VerifyApi } from './verify.worker.ts';

/** The documents of an answer; none where the file was refused. */
export function documentsOf(answer: VerifyAnswer | null): readonly Verification[] {
  if (!answer || 'refused' in answer) return [];
  return answer.format === 'karyotome-verification/1' ? [answer] : answer.documents;
}

/** Verifies one file after the other, in a worker: another one ends the work on the one before. */
export function useVerify() {
  const answer = shallowRef<VerifyAnswer | null>(null);
  const fileName = ref<string | null>(null);
  const isRunning = ref(false);
  /** Documents whose signature held, of all files so far. */
  const known = shallowRef<readonly Verification[]>([]);
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
    known.value = [...known.value, ...documentsOf(found).filter(({ signature }) => signature === 'valid')];
    stop();
  }
  onScopeDispose(stop);
  return { answer, fileName, isRunning, known, verify };
}
