<script setup lang="ts">
import type { PlannerView, ProjectView } from '@karyotome/contract';
import { routePlaces, ROUTE_TERMS } from '@karyotome/core';
import { capital, notReadyWords } from '@karyotome/words';
import { computed, defineAsyncComponent } from 'vue';
import { api } from '../../api/resources.ts';
import { countWords, dayWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import type { RouteOddsQuestion, SimulateQuestion } from '../../workers/planner-questions.ts';
import { useAnswer } from '../../workers/useAnswer.ts';
import type { PlannerWorker } from '../../workers/usePlanner.ts';
import { RUNS, YEARS } from '../planner/plan-runs.ts';
import { medianWords, namesOf, stepWords, yearsWords } from '../planner/planner-words.ts';
import { planState, seasonFor, type PlanStep } from './project-plan.ts';
import { useRoutePlay } from './useRoutePlay.ts';

/** A route that hardly one run in a thousand finishes leads nowhere. */
const LEAST_SHARE = 0.001;

/** What is left of a project's route: what comes next and when it can, played anew with what is there now. */
const props = defineProps<{
  project: ProjectView;
  planner: PlannerView;
  worker: PlannerWorker;
  mayBreed: boolean;
}>();
defineEmits<{ held: [step: number] }>();
const YearsChart = defineAsyncComponent(() => import('../planner/YearsChart.vue'));
const notices = useNotices();
const state = computed(() => planState(props.project, props.planner));
const names = computed(() => namesOf(props.planner));
const nameOf = (id: string): string =>
  props.project.projectAnimals.find(({ animal }) => animal.id === id)?.animal.number ?? names.value(id);
const question = computed((): SimulateQuestion | null => {
  const { plan, endedOn } = props.project;
  if (!plan || endedOn !== null || !state.value || state.value.missing.length > 0) return null;
  const { target, bought, holdBack } = plan;
  const { route } = state.value.left;
  return { ask: 'simulate', route, target, bought, holdBack, years: YEARS, runs: RUNS, seed: 1 };
});
const { progress, result } = useRoutePlay(props.worker, question);
const { answer: odds } = useAnswer(props.worker, () =>
  question.value ? oddsQuestion(question.value) : null,
);
/** The target cannot come of it any more, as its animals are known now. */
const isHopeless = computed(() => result.value !== null && result.value.byYear.at(-1)!.share < LEAST_SHARE);
const places = computed(() => {
  const { plan, projectAnimals } = props.project;
  if (!plan || !state.value) return null;
  const years = result.value?.medianYear ?? plan.route.roughYears;
  return routePlaces(state.value.left.route, projectAnimals.length, plan.holdBack, years, ROUTE_TERMS);
});
const plannerLink = computed(() => ({
  path: '/season/planner',
  query: {
    tab: 'routes',
    target: props.project.plan?.target ?? props.project.targets[0],
    project: props.project.id,
  },
}));
const planning = useWrite(api.planPairing);
async function plan({ pair, readyIn }: PlanStep): Promise<void> {
  const season = seasonFor(readyIn!, props.planner.season);
  const { dam, sire } = pair!;
  if (await planning.run(props.project.id, { season, damId: dam.id, sireId: sire.id }))
    notices.say(`${dam.number} × ${sire.number} planned for ${season}`);
  else notices.warn(planning.message.value ?? 'It could not be planned');
}
function oddsQuestion({ route, target, bought }: SimulateQuestion): RouteOddsQuestion {
  return { ask: 'route-odds', route, target, bought };
}
/** A step of what is left, with the odds of today where its parents are here. */
const wordsOf = ({ step }: PlanStep, i: number): { pair: string; keep: string } =>
  stepWords({ ...step, perEgg: odds.value?.[i] ?? step.perEgg }, state.value!.left.route, nameOf);
function whenWords({ readyIn, notReady }: PlanStep): string {
  if (readyIn === null) return 'Once its parents are here.';
  if (readyIn === 0 && notReady.length === 0) return 'It can be made now.';
  const why = notReady.map((one) => notReadyWords(one, reader())).join('; ');
  const lead = readyIn === 0 ? 'Not today.' : `It can be made in ${yearsWords(readyIn)}.`;
  return why === '' ? lead : `${lead} ${capital(why)}.`;
}
</script>

<template>
  <v-card class="part">
    <div class="row">
      <h2>What comes next</h2>
      <v-spacer />
      <v-btn v-if="mayBreed" variant="outlined" :to="plannerLink">{{
        project.plan ? 'Other routes…' : 'Find a route…'
      }}</v-btn>
    </div>
    <p v-if="!project.plan || !state">
      No route was chosen yet. The planner looks for routes to the target, and plays them through.
    </p>
    <template v-else>
      <p v-if="state.missing.length > 0">
        <strong>{{ state.missing.map(nameOf).join(', ') }}</strong>
        {{ state.missing.length === 1 ? 'is' : 'are' }} gone, reserved or not sexed: this route cannot be
        played. Choose another one, or put right what is recorded.
      </p>
      <ol>
        <li v-for="(one, i) in state.steps" :key="one.number" :class="{ soft: one.pair === null }">
          <div class="step">
            <span>
              <strong>{{ wordsOf(one, i).pair }}</strong>
              <span class="small">{{ wordsOf(one, i).keep }}</span>
              <span class="small soft">{{ whenWords(one) }}</span>
            </span>
            <span v-if="mayBreed && one.pair" class="acts">
              <span v-if="one.plannedFor !== null" class="small">planned for {{ one.plannedFor }}</span>
              <v-btn v-else size="small" variant="outlined" @click="plan(one)"
                >Plan for {{ seasonFor(one.readyIn!, planner.season) }}</v-btn
              >
              <v-btn v-if="one.step.keep" size="small" variant="outlined" @click="$emit('held', one.number)"
                >Held back…</v-btn
              >
            </span>
          </div>
        </li>
      </ol>
      <template v-if="question">
        <p v-if="isHopeless">
          <strong>The target cannot come of this route any more</strong>, as its animals are known now: look
          for another one.
        </p>
        <p v-else-if="result">
          Played from today: <strong>{{ medianWords(result, YEARS) }}</strong>.
          <span class="soft"
            >When it was chosen, on {{ dayWords(project.plan.chosenOn) }}:
            {{ yearsWords(project.plan.route.roughYears) }}, roughly.</span
          >
        </p>
        <v-progress-linear v-else :model-value="progress * 100" height="10" aria-label="Playing the route" />
        <YearsChart v-if="result && !isHopeless" :plans="[{ name: project.name, result }]" />
      </template>
      <p v-if="places" class="small soft">
        It takes up to {{ countWords(places.most, 'place', 'places') }} at once, and about
        {{ reader().number(places.placeYears) }} places for a year over all.
      </p>
    </template>
  </v-card>
</template>

<style scoped>
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 16px;
}
ol {
  display: grid;
  gap: 10px;
  margin: 0;
  padding-left: 24px;
}
.step {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 16px;
}
.step .small {
  display: block;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
</style>
