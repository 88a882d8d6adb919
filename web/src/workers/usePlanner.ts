import type { PlannerView } from '@karyotome/contract';
import { proxy, wrap, type Remote } from 'comlink';
import { onScopeDispose, toRaw, watch, type Ref } from 'vue';
import type { AnswerTo, PlannerQuestion } from './planner-questions.ts';
import type { PlannerApi } from './planner.worker.ts';

/** A question under way: its answer (null once it was cancelled), and the way to stop it. */
export interface Asked<Answer> {
  readonly answer: Promise<Answer | null>;
  readonly cancel: () => void;
}
interface Waiting {
  readonly question: PlannerQuestion;
  readonly settle: (answer: unknown) => void;
  readonly fail: (error: unknown) => void;
  readonly onProgress: (share: number) => void;
}

/**
 * The planner, off the main thread. The collection is handed over whenever it changed. Cancelling a plan that is played stops
 * it between two pieces; cancelling anything else starts the worker anew, since it cannot listen while it searches.
 */
export function usePlannerWorker(view: Ref<PlannerView | undefined>) {
  const waiting = new Map<number, Waiting>();
  let latest = 0;
  let { worker, remote } = start();

  function start(): { worker: Worker; remote: Remote<PlannerApi> } {
    const fresh = new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' });
    return { worker: fresh, remote: wrap<PlannerApi>(fresh) };
  }
  function handOver(): void {
    // Out of the reactive shell: a proxy cannot be posted.
    if (view.value) void remote.setCollection(toRaw(view.value));
  }
  async function send(id: number, asked: Waiting): Promise<void> {
    const { question, onProgress } = asked;
    const isAwaited = (): boolean => waiting.get(id) === asked;
    const hear = (share: number): void => {
      if (isAwaited()) onProgress(share);
    };
    try {
      const answer =
        question.ask === 'simulate'
          ? await remote.simulate(id, question, proxy(hear))
          : await remote.search(question);
      if (isAwaited()) asked.settle(answer);
    } catch (error) {
      if (isAwaited()) asked.fail(error);
    }
    if (isAwaited()) waiting.delete(id);
  }
  watch(view, handOver, { immediate: true });

  function cancel(id: number): void {
    const asked = waiting.get(id);
    if (!asked) return;
    waiting.delete(id);
    asked.settle(null);
    if (asked.question.ask === 'simulate') {
      void remote.cancel(id);
      return;
    }
    worker.terminate();
    ({ worker, remote } = start());
    handOver();
    for (const [other, still] of waiting) void send(other, still);
  }

  /** Asks the worker; needs the collection to be there. */
  function ask<Q extends PlannerQuestion>(
    question: Q,
    onProgress: (share: number) => void = () => undefined,
  ): Asked<AnswerTo<Q>> {
    const id = ++latest;
    const plain = JSON.parse(JSON.stringify(question)) as PlannerQuestion;
    const answer = new Promise<AnswerTo<Q> | null>((resolve, reject) => {
      const asked: Waiting = {
        question: plain,
        settle: (value) => resolve(value as AnswerTo<Q> | null),
        fail: reject,
        onProgress,
      };
      waiting.set(id, asked);
      void send(id, asked);
    });
    return { answer, cancel: () => cancel(id) };
  }

  onScopeDispose(() => {
    worker.terminate();
    for (const { settle } of waiting.values()) settle(null);
  });
  return { ask };
}
export type PlannerWorker = ReturnType<typeof usePlannerWorker>;
