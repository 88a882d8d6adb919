import type { SimulationResult } from '@karyotome/core';
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import type { SimulateQuestion } from '../../workers/planner-questions.ts';
import type { Asked, PlannerWorker } from '../../workers/usePlanner.ts';

/** Plays a route, and plays it anew whenever it or the collection changed. */
export function useRoutePlay(planner: PlannerWorker, question: Ref<SimulateQuestion | null>) {
  const progress = ref(0);
  const result = shallowRef<SimulationResult | null>(null);
  let asked: Asked<SimulationResult> | null = null;
  watch(
    question,
    async (now) => {
      asked?.cancel();
      asked = null;
      result.value = null;
      progress.value = 0;
      if (!now) return;
      const mine = planner.ask(now, (share) => (progress.value = share));
      asked = mine;
      const answer = await mine.answer;
      if (asked === mine) result.value = answer;
    },
    { immediate: true },
  );
  onScopeDispose(() => asked?.cancel());
  return { progress, result };
}
