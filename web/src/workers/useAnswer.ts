import { ref, shallowRef, toValue, watch, type MaybeRefOrGetter } from 'vue';
import type { AnswerTo, PlannerQuestion } from './planner-questions.ts';
import type { PlannerWorker } from './usePlanner.ts';

/** The answer to a question that changes while it is typed: a newer question overtakes an older one. */
export function useAnswer<Q extends PlannerQuestion>(
  planner: PlannerWorker,
  question: MaybeRefOrGetter<Q | null>,
) {
  const answer = shallowRef<AnswerTo<Q> | null>(null);
  const isWorking = ref(false);
  let latest = 0;
  watch(
    () => JSON.stringify(toValue(question)),
    async () => {
      const mine = ++latest;
      const asked = toValue(question);
      if (!asked) {
        answer.value = null;
        isWorking.value = false;
        return;
      }
      isWorking.value = true;
      const given = await planner.ask(asked).answer;
      if (mine !== latest) return;
      answer.value = given;
      isWorking.value = false;
    },
    { immediate: true },
  );
  return { answer, isWorking };
}
