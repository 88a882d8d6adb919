<script setup lang="ts">
import { RUNS, YEARS, type PlanRun } from './plan-runs.ts';
import RouteCard from './RouteCard.vue';
import { medianWords, type NameOf } from './planner-words.ts';
import { reader } from '../../format/reader.ts';

/** One plan as it was played: when its steps and its target come true. */
defineProps<{ run: PlanRun; nameOf: NameOf }>();
defineEmits<{ clear: [] }>();
const percent = (share: number): string => `${Math.round(share * 100)}%`;
</script>

<template>
  <section class="plan">
    <h3>Plan {{ run.slot }}</h3>
    <p v-if="!run.route" class="soft">Choose a route below to play it here.</p>
    <template v-else>
      <template v-if="run.result">
        <p>
          <strong>{{ medianWords(run.result, YEARS) }}</strong>;
          {{ percent(run.result.byYear.at(-1)!.share) }} within {{ YEARS }} years.
        </p>
        <ul class="small">
          <li v-for="(step, index) in run.result.steps" :key="index">
            Step {{ index + 1 }} held back in {{ percent(step.share) }} of the runs<template
              v-if="step.medianYear"
              >, half of them by year {{ step.medianYear }}</template
            >
          </li>
        </ul>
      </template>
      <template v-else>
        <v-progress-linear
          :model-value="run.progress * 100"
          height="10"
          :aria-label="`Plan ${run.slot}: playing`"
        />
        <p class="small">{{ percent(run.progress) }} of {{ reader().number(RUNS) }} runs</p>
      </template>
      <RouteCard :route="run.route" :name-of="nameOf">
        <v-btn variant="text" @click="$emit('clear')">{{ run.result ? 'Put away' : 'Stop' }}</v-btn>
      </RouteCard>
    </template>
  </section>
</template>

<style scoped>
.plan {
  display: grid;
  align-content: start;
  gap: 10px;
}
ul {
  padding-left: 18px;
}
</style>
