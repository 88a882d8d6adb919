<script setup lang="ts">
import { useLearnedMoves } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';
import RacksNav from './RacksNav.vue';

/** What became of moves up the ladder in this collection: how long it was to the first meal, and how many went back. */
const { data, status, error, refetch } = useLearnedMoves();
const WEEKS = [7, 14, 21, 28] as const;
type Steps = NonNullable<typeof data.value>['kinds'][number]['steps'];
const eatenBy = (steps: Steps, days: number): { share: number; low: number; high: number } => {
  const step = steps.findLast((one) => one.days <= days);
  const share = 1 - (step?.waiting ?? 1);
  const half = 1.96 * (step?.se ?? 0);
  return { share, low: Math.max(0, share - half), high: Math.min(1, share + half) };
};
const percent = (share: number): string => `${Math.round(share * 100)}%`;
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>What became of moves</h1>
      <RacksNav />
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.kinds.length === 0"
      empty-title="No move up the ladder yet"
      empty-text="After each move up, the days to the next meal are counted; with some of them it shows which step is taken well, and which too early."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/racks">To the racks</v-btn></template>
      <v-card v-if="data" class="box">
        <div class="scroll">
          <table class="figures">
            <thead>
              <tr>
                <th>Moved into</th>
                <th class="num">moves</th>
                <th class="num">half had eaten by</th>
                <th v-for="days in WEEKS" :key="days" class="num">by day {{ days }}</th>
                <th class="num">not eaten, or back</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="kind in data.kinds" :key="kind.into">
                <td>{{ kind.into }}</td>
                <td class="num">{{ kind.moves }}</td>
                <td class="num">{{ kind.medianDays === null ? 'not yet' : `day ${kind.medianDays}` }}</td>
                <td v-for="days in WEEKS" :key="days" class="num">
                  {{ percent(eatenBy(kind.steps, days).share) }}
                  <span
                    v-if="eatenBy(kind.steps, days).low < eatenBy(kind.steps, days).high"
                    class="small soft"
                    >{{ percent(eatenBy(kind.steps, days).low) }} to
                    {{ percent(eatenBy(kind.steps, days).high) }}</span
                  >
                </td>
                <td class="num">{{ kind.wentBack }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="data.heavier">
          One that is a tenth heavier at the move takes its first meal
          <strong>{{ data.heavier.ratio.toFixed(2) }} times</strong> as soon, on any day (95%:
          {{ data.heavier.low.toFixed(2) }} to {{ data.heavier.high.toFixed(2) }}).
          <template v-if="data.heavier.low <= 1 && data.heavier.high >= 1">That may be chance.</template>
        </p>
        <p v-else class="small soft">
          Whether heavier ones settle sooner is said once a dozen moves were weighed and watched.
        </p>
        <p class="small soft">
          Shares by Kaplan and Meier: those still settling count for as long as they were watched. In smaller
          print the 95% interval.
        </p>
      </v-card>
    </StateBlock>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  padding: 16px;
}
td .small {
  display: block;
}
</style>
