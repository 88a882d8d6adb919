import type { PlannerView } from '@karyotome/contract';
import { onScopeDispose, toRaw, watch, type Ref } from 'vue';
import type { AnswerTo, PlannerQuestion } from './planner-questions.ts';
import type { FromPlanner, ToPlanner } from './planner.worker.ts';

/** A question under way: its answer (null once it was cancelled), and the way to stop it. */
export interface Asked<Answer> {
  readonly answer: Promise<Answer | null>;
  readonly cancel: () => void;
}
interface Waiting {
  readonly question: PlannerQuestion;
  readonly settle: (answer: unknown) => void;
  readonly onProgress: (share: number) => void;
}

/**
 * The planner, off the main thread. The collection is handed over whenever it changed. Cancelling a plan that is played stops
 * it between two pieces; cancelling anything else starts the worker anew, since it cannot listen while it searches.
 */
export function usePlannerWorker(view: Ref<PlannerView | undefined>) {
  const waiting = new Map<number, Waiting>();
  let latest = 0;
  let worker = start();

  function start(): Worker {
    const fresh = new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' });
    fresh.addEventListener('message', ({ data }: MessageEvent<FromPlanner>) => {
      const asked = waiting.get(data.id);
      if ('progress' in data) return asked?.onProgress(data.progress);
      waiting.delete(data.id);
      asked?.settle(data.answer);
    });
    return fresh;
  }
  const post = (message: ToPlanner): void => worker.postMessage(message);
  function handOver(): void {
    // Out of the reactive shell: a proxy cannot be posted.
    if (view.value) post({ view: toRaw(view.value) });
  }
  watch(view, handOver, { immediate: true });

  function cancel(id: number): void {
    const asked = waiting.get(id);
    if (!asked) return;
    waiting.delete(id);
    asked.settle(null);
    if (asked.question.ask === 'simulate') return post({ cancel: id });
    worker.terminate();
    worker = start();
    handOver();
    for (const [other, { question }] of waiting) post({ id: other, question });
  }

  /** Asks the worker; needs the collection to be there. */
  function ask<Q extends PlannerQuestion>(
    question: Q,
    onProgress: (share: number) => void = () => undefined,
  ): Asked<AnswerTo<Q>> {
    const id = ++latest;
    const plain = JSON.parse(JSON.stringify(question)) as PlannerQuestion;
    const answer = new Promise<AnswerTo<Q> | null>((resolve) => {
      waiting.set(id, {
        question: plain,
        settle: (value) => resolve(value as AnswerTo<Q> | null),
        onProgress,
      });
      post({ id, question: plain });
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
