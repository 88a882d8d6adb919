<script setup lang="ts">
import type { PlannerView } from '@karyotome/contract';
import type { Route } from '@karyotome/core';
import { computed, nextTick, onScopeDispose, ref, shallowRef, watch } from 'vue';
import OwnGenesField from '../../ui/OwnGenesField.vue';
import type { RoutesAnswer } from '../../workers/planner-questions.ts';
import type { Asked, PlannerWorker } from '../../workers/usePlanner.ts';
import PlanResult from './PlanResult.vue';
import RouteCard from './RouteCard.vue';
import YearsChart from './YearsChart.vue';
import { RUNS, usePlanRuns, YEARS, type PlanRun } from './plan-runs.ts';
import type { PlannerDraft } from './planner-draft.ts';
import { namesOf } from './planner-words.ts';
import { useRouteChoice } from './useRouteChoice.ts';
import { reader } from '../../format/reader.ts';
import { useSession } from '../../stores/session.ts';

/** Ways to a target over several seasons: found, then played through many times, two side by side. */
/** The form's state, shared by all tabs: each changes it in place. */
const draft = defineModel<PlannerDraft>('draft', { required: true });
const props = defineProps<{
  view: PlannerView;
  planner: PlannerWorker;
}>();
const nameOf = computed(() => namesOf(props.view));
const asking = shallowRef<Asked<RoutesAnswer> | null>(null);
const found = shallowRef<RoutesAnswer | null>(null);
const { runs, play, clear } = usePlanRuns(props.planner);
const bought = computed(() => (draft.value.isBuying ? { ...draft.value.bought } : null));
const question = computed(() => JSON.stringify([draft.value.target, bought.value]));

async function find(): Promise<void> {
  const asked = props.planner.ask({ ask: 'routes', target: draft.value.target, bought: bought.value });
  asking.value = asked;
  const answer = await asked.answer;
  if (asking.value !== asked) return;
  asking.value = null;
  found.value = answer;
}
function stop(): void {
  asking.value?.cancel();
  asking.value = null;
}
// Another target: what was found is for the old one.
watch(question, () => {
  stop();
  found.value = null;
  clear('A');
  clear('B');
});
onScopeDispose(stop);
const plans = ref<HTMLElement | null>(null);
async function start(slot: PlanRun['slot'], route: Route): Promise<void> {
  const { target, holdBack } = draft.value;
  void play(slot, route, { target, bought: bought.value, holdBack });
  // The plans stand above the routes: what was just begun is to be seen.
  await nextTick();
  plans.value?.scrollIntoView({ block: 'start' });
}
const session = useSession();
const { project, choose, busy } = useRouteChoice();
function keep(route: Route): void {
  const { target, holdBack } = draft.value;
  void choose({ target: target.trim(), route, bought: bought.value, holdBack });
}
const played = computed(() =>
  [runs.A, runs.B].flatMap(({ slot, result }) => (result ? [{ name: `Plan ${slot}`, result }] : [])),
);
</script>

<template>
  <div class="stack">
    <v-card class="part">
      <div class="ask">
        <v-switch
          v-model="draft.isBuying"
          label="One animal may be bought"
          color="primary"
          hide-details
          density="compact"
        />
        <template v-if="draft.isBuying">
          <v-btn-toggle v-model="draft.bought.sex" density="compact" aria-label="Sex of the bought animal">
            <v-btn value="male">Male</v-btn>
            <v-btn value="female">Female</v-btn>
          </v-btn-toggle>
          <OwnGenesField v-model="draft.bought.genes" label="Its genes" />
        </template>
        <v-number-input
          v-model="draft.holdBack"
          label="Held back from each step at most"
          class="few"
          :min="1"
          :max="6"
        />
        <v-btn v-if="asking" variant="outlined" size="large" @click="stop">Stop</v-btn>
        <v-btn
          v-else
          color="primary"
          variant="flat"
          size="large"
          :disabled="draft.target.trim() === ''"
          @click="find"
          >Find routes</v-btn
        >
      </div>
      <v-progress-linear v-if="asking" indeterminate aria-label="Looking for routes" />
      <p v-if="draft.target.trim() === ''">Type the target above, then look for routes to it.</p>
      <p v-if="found && found.missing.length > 0">
        <strong>None of your animals carries {{ found.missing.join(' or ') }}.</strong> Allow one animal to be
        bought that does.
      </p>
      <p v-else-if="found && found.routes.length === 0">
        <strong>No route was found</strong> within three generations, with your bound on relatedness.
      </p>
    </v-card>
    <v-card v-if="runs.A.route || runs.B.route" class="part plans">
      <h2 ref="plans">Two plans, side by side</h2>
      <YearsChart v-if="played.length > 0" :plans="played" />
      <div class="two">
        <PlanResult
          v-for="run in runs"
          :key="run.slot"
          :run="run"
          :name-of="nameOf"
          @clear="clear(run.slot)"
        />
      </div>
      <p class="small soft">
        Each run plays the plan season by season: whether she lays, how many eggs, what each is, how long the
        young take to grow ({{ reader().number(RUNS) }} runs of {{ YEARS }} years). Growth and missed seasons
        are common practice; the rest comes from your records.
      </p>
    </v-card>
    <div v-if="found" class="routes">
      <v-card v-for="(route, index) in found.routes" :key="index" class="part">
        <h3>Route {{ index + 1 }}</h3>
        <RouteCard :route="route" :name-of="nameOf">
          <v-btn variant="outlined" @click="start('A', route)">Play as A</v-btn>
          <v-btn variant="outlined" @click="start('B', route)">As B</v-btn>
          <v-btn
            v-if="session.mayBreed"
            color="primary"
            variant="flat"
            :loading="busy"
            @click="keep(route)"
            >{{ project ? `Choose for ${project.name}` : 'Make it a project' }}</v-btn
          >
        </RouteCard>
      </v-card>
    </div>
  </div>
</template>

<style scoped>
.part {
  display: grid;
  align-content: start;
  gap: 12px;
  padding: 16px;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 16px;
}
.few {
  max-width: 250px;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 24px;
}
.routes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(400px, 100%), 1fr));
  gap: 14px;
}
.plans h2 {
  scroll-margin-top: 80px;
}
</style>
