<script setup lang="ts">
import type { PlannerView } from '@karyotome/contract';
import { notReadyWords } from '@karyotome/words';
import { mdiClose, mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { reader } from '../../format/reader.ts';
import OwnGenesField from '../../ui/OwnGenesField.vue';
import type { SeasonPlanQuestion } from '../../workers/planner-questions.ts';
import { useAnswer } from '../../workers/useAnswer.ts';
import type { PlannerWorker } from '../../workers/usePlanner.ts';
import type { PlannerDraft } from './planner-draft.ts';
import { kinWords, namesOf, tradeWords, youngWords } from './planner-words.ts';

/** Males for the season's females: the keeper fixes some, the rest is filled for the targets, and says what it traded. */
/** The form's state, shared by all tabs: each changes it in place. */
const draft = defineModel<PlannerDraft>('draft', { required: true });
const props = defineProps<{
  view: PlannerView;
  planner: PlannerWorker;
}>();
const ALONE = 'none';
const MOST_TARGETS = 5;
const withUnready = ref(false);
const nameOf = computed(() => namesOf(props.view));
const females = computed(() =>
  props.view.animals.filter(
    ({ id, sex, notReady }) =>
      sex === 'female' && (withUnready.value || notReady.length === 0 || draft.value.fixed[id] !== undefined),
  ),
);
const males = computed(() => props.view.animals.filter(({ sex }) => sex === 'male'));
const boundPercent = computed({
  get: () => draft.value.bound ?? Math.round(props.view.rules.inbreedingBound * 1e4) / 100,
  set: (value: number) => (draft.value.bound = value),
});
const question = computed((): SeasonPlanQuestion | null => {
  const targets = draft.value.targets.filter(({ genes }) => genes.trim() !== '');
  if (targets.length === 0 || females.value.length === 0) return null;
  return {
    ask: 'season',
    targets,
    females: females.value.map(({ id }) => id),
    fixed: females.value.flatMap(({ id }) => {
      const fixed = draft.value.fixed[id];
      return fixed === undefined ? [] : [[id, fixed === ALONE ? null : fixed] as const];
    }),
    inbreedingBound: boundPercent.value / 100,
  };
});
const { answer, isWorking } = useAnswer(props.planner, question);
const choices = computed(() => [
  { value: '', title: 'Whoever is best' },
  { value: ALONE, title: 'Nobody this season' },
  ...males.value.map(({ id, notReady }) => ({
    value: id,
    title: `${nameOf.value(id)}${notReady[0] ? ` (${notReadyWords(notReady[0], reader())})` : ''}`,
  })),
]);
function fix(female: string, male: string): void {
  if (male === '') Reflect.deleteProperty(draft.value.fixed, female);
  else draft.value.fixed[female] = male;
}
const total = computed(() => (answer.value ?? []).reduce((sum, { value }) => sum + value, 0));
const load = computed(() => {
  const counts = new Map<string, number>();
  for (const { male } of answer.value ?? []) if (male) counts.set(male, (counts.get(male) ?? 0) + 1);
  return [...counts].map(([id, count]) => {
    const free = props.view.animals.find((animal) => animal.id === id)?.freeLoad ?? 0;
    return `${nameOf.value(id)} ${count} of ${free}`;
  });
});
</script>

<template>
  <div class="stack">
    <v-card class="part">
      <h2>What the season is for</h2>
      <div v-for="(target, index) in draft.targets" :key="index" class="target">
        <OwnGenesField
          v-model="target.genes"
          :label="`Target ${index + 1}`"
          hint="One that shows at least this"
        />
        <v-number-input
          v-model="target.worth"
          label="Worth, beside the others"
          :min="0.1"
          :precision="1"
          control-variant="hidden"
        />
        <v-btn
          v-if="draft.targets.length > 1"
          :icon="mdiClose"
          variant="text"
          :aria-label="`Leave out target ${index + 1}`"
          @click="draft.targets.splice(index, 1)"
        />
      </div>
      <div class="row">
        <v-btn
          v-if="draft.targets.length < MOST_TARGETS"
          variant="text"
          :prepend-icon="mdiPlus"
          @click="draft.targets.push({ genes: '', worth: 1 })"
          >Another target</v-btn
        >
        <v-spacer />
        <v-switch v-model="withUnready" label="Females that are not ready too" color="primary" hide-details />
        <v-number-input
          v-model="boundPercent"
          label="Inbreeding at most, %"
          class="bound"
          :min="0"
          :max="100"
          :precision="2"
          control-variant="hidden"
        />
      </div>
    </v-card>
    <v-card class="part">
      <div class="row">
        <h2>Who with whom</h2>
        <v-spacer />
        <span v-if="answer"
          ><strong class="num">{{ youngWords(total) }}</strong> wanted young expected in all, by worth</span
        >
      </div>
      <v-progress-linear v-if="isWorking" indeterminate aria-label="Planning the season" />
      <p v-if="!question && females.length > 0">Type at least one target: the rest is filled from it.</p>
      <p v-if="females.length === 0">No female is ready. Let the switch above bring in the others.</p>
      <div class="scroll">
        <table v-if="females.length > 0" class="figures">
          <thead>
            <tr>
              <th scope="col">Female</th>
              <th scope="col">You fix</th>
              <th scope="col">Planned</th>
              <th scope="col" class="num">Wanted young</th>
              <th scope="col" class="num">Inbreeding</th>
              <th scope="col">What was traded</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(female, index) in females" :key="female.id">
              <td>
                {{ nameOf(female.id) }}
                <span v-if="female.notReady[0]" class="small soft">{{
                  notReadyWords(female.notReady[0], reader())
                }}</span>
              </td>
              <td>
                <v-autocomplete
                  :model-value="draft.fixed[female.id] ?? ''"
                  :items="choices"
                  density="compact"
                  class="fix"
                  :aria-label="`Male for ${female.number}`"
                  @update:model-value="fix(female.id, $event ?? '')"
                />
              </td>
              <template v-if="answer?.[index]?.female === female.id">
                <td>
                  <strong>{{
                    answer[index].male
                      ? nameOf(answer[index].male)
                      : answer[index].traded
                        ? 'nobody'
                        : 'nobody can give it'
                  }}</strong>
                </td>
                <td class="num">{{ answer[index].male ? youngWords(answer[index].value) : '' }}</td>
                <td class="num">{{ answer[index].male ? kinWords(answer[index].inbreeding) : '' }}</td>
                <td class="small">{{ tradeWords(answer[index], nameOf) }}</td>
              </template>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="load.length > 0" class="small soft">Load: {{ load.join(', ') }}.</p>
    </v-card>
  </div>
</template>

<style scoped>
.part {
  display: grid;
  gap: 12px;
  padding: 16px;
}
.target {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 200px 48px;
  align-items: start;
  gap: 10px;
}
.bound {
  max-width: 220px;
}
.fix {
  min-width: 200px;
}
td:first-child,
td:nth-child(3) {
  white-space: nowrap;
}
@media (width < 600px) {
  .target {
    grid-template-columns: minmax(0, 1fr) 48px;
  }
}
</style>
