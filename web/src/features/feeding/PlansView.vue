<script setup lang="ts">
import type { FeedingView } from '@karyotome/contract';
import type { Worked } from '@karyotome/core';
import { computed, ref } from 'vue';
import { useFeeding, useFeedingLessons } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import { workedWords } from '../animal/care-words.ts';
import TodayNav from '../today/TodayNav.vue';
import PlanDialog from './PlanDialog.vue';
import FeedingRulesDialog from './FeedingRulesDialog.vue';
import { massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';

type Plan = FeedingView['plans'][number];
/** How this collection feeds: its rules, its plans with their ladders of refusals, and what has worked so far. */
const { data, status, error, refetch } = useFeeding();
const { data: lessons } = useFeedingLessons();
const session = useSession();
const editing = ref<Plan | 'new' | null>(null);
const isRuling = ref(false);
const mayManage = computed(() => session.mayManage);
const STATE = { live: 'live', 'frozen-thawed': 'frozen-thawed', 'fresh-killed': 'freshly killed' } as const;
const BY: readonly { by: Worked['by']; title: string }[] = [
  { by: 'step', title: 'Step of the plan' },
  { by: 'prey', title: 'Prey' },
  { by: 'state', title: 'Live or thawed' },
  { by: 'light', title: 'Light' },
  { by: 'tub', title: 'Kind of tub' },
  { by: 'substrate', title: 'Substrate' },
];
const worked = computed(() =>
  BY.map(({ by, title }) => ({
    title,
    rows: (lessons.value?.worked ?? []).filter((one) => one.by === by),
  })).filter(({ rows }) => rows.length > 0),
);
const classWords = (i: number): string => {
  const { belowG } = data.value!.rules.classes[i]!;
  const from = data.value!.rules.classes[i - 1]?.belowG;
  if (belowG === null) return from ? `from ${massWords(from)}` : 'all';
  return from ? reader().massSpan(from, belowG) : `to ${massWords(belowG)}`;
};
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Plans and rules</h1>
      <TodayNav />
    </div>
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <div v-if="data" class="grid">
        <div class="stack">
          <v-card class="box">
            <div class="row">
              <h2>Rules of feeding</h2>
              <v-spacer />
              <v-btn v-if="mayManage" size="small" variant="outlined" @click="isRuling = true">Change</v-btn>
            </div>
            <table class="figures">
              <thead>
                <tr>
                  <th>Weight</th>
                  <th class="num">prey</th>
                  <th class="num">every</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(one, i) in data.rules.classes" :key="i">
                  <td>{{ classWords(i) }}</td>
                  <td class="num">{{ Math.round(one.share * 1000) / 10 }}%</td>
                  <td class="num">{{ one.everyDays }} days</td>
                </tr>
              </tbody>
            </table>
            <p class="small">
              First meal {{ data.rules.firstMealAfterShedDays }} days after the first shed. After a
              regurgitation {{ data.rules.restDays }} days of rest, then
              {{ Math.round(data.rules.afterRestShare * 100) }}% of a meal.
              {{ data.rules.offerInShed ? 'Offered' : 'Passed over' }} in shed,
              {{ data.rules.offerGravid ? 'offered' : 'passed over' }} when gravid. From
              {{ massWords(data.rules.adultG) }} on a fast in
              {{ data.rules.fastMonths.map((month) => MONTHS[month - 1]).join(', ') }} counts as one of the
              season: offered every {{ data.rules.fastingEveryDays }} days. Tubs are cleaned every
              {{ data.rules.cleanEveryDays }} days.
            </p>
          </v-card>
          <v-card class="box">
            <h2>What worked here</h2>
            <p v-if="worked.length === 0" class="soft">
              Meals by what was done appear here once some were logged: by step, prey, light, tub and
              substrate.
            </p>
            <p v-if="lessons?.intervals" class="small soft">
              Half of the {{ lessons.intervals.of }} meals came {{ lessons.intervals.low }} to
              {{ lessons.intervals.high }} days after the one before, in the middle
              {{ lessons.intervals.mid }}. Refusals in shed, while settling after a move, and in the season
              are left out.
            </p>
            <div v-for="{ title, rows } in worked" :key="title" class="scroll">
              <table class="figures small">
                <thead>
                  <tr>
                    <th class="what">{{ title }}</th>
                    <th class="num">taken</th>
                    <th class="num">share</th>
                    <th class="num">between</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="one in rows" :key="one.value">
                    <td>{{ workedWords(one) }}</td>
                    <td class="num">{{ one.count }} of {{ one.of }}</td>
                    <td class="num">{{ Math.round((one.share ?? 0) * 100) }}%</td>
                    <td class="num soft">
                      {{ Math.round(one.low * 100) }} and {{ Math.round(one.high * 100) }}%
                    </td>
                  </tr>
                </tbody>
              </table>
            </div>
          </v-card>
        </div>
        <div class="stack">
          <v-card v-for="plan in data.plans" :key="plan.id" class="box">
            <div class="row">
              <h2>{{ plan.name }}</h2>
              <v-chip v-if="plan.changed" size="small" label>changed</v-chip>
              <v-spacer />
              <span class="small soft">{{
                plan.animals === 1 ? '1 animal' : `${plan.animals} animals`
              }}</span>
              <v-btn
                v-if="session.mayRecord"
                size="small"
                variant="outlined"
                :aria-label="`Edit ${plan.name}`"
                @click="editing = plan"
                >Edit</v-btn
              >
            </div>
            <p class="small">
              {{
                plan.start.meals === 0
                  ? 'The usual prey from the first offer'
                  : `The first ${plan.start.meals} meals: ${plan.start.species}, ${STATE[plan.start.state]}`
              }}.
            </p>
            <details>
              <summary>When it refuses: {{ plan.steps.length }} steps, one change at a time</summary>
              <ol class="steps">
                <li v-for="step in plan.steps" :key="step.key">
                  {{ step.name }} <span class="small soft">{{ step.tries }}×</span>
                  <span v-if="step.afterDays" class="small soft"
                    >, not before {{ step.afterDays }} days without a meal{{
                      step.onlyLosing ? ', losing weight' : ''
                    }}</span
                  >
                  <span v-if="step.caution" class="small caution">{{ step.caution }}</span>
                </li>
              </ol>
            </details>
          </v-card>
          <v-btn v-if="session.mayRecord" variant="outlined" @click="editing = 'new'"
            >A plan of your own…</v-btn
          >
        </div>
      </div>
    </StateBlock>
    <PlanDialog v-if="editing && data" :plan="editing === 'new' ? null : editing" @close="editing = null" />
    <FeedingRulesDialog
      v-if="isRuling && data"
      :rules="data.rules"
      :order="data.order"
      :version="data.rulesVersion"
      @close="isRuling = false"
    />
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
.box {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.what {
  width: 50%;
}
.steps {
  padding: 8px 0 0 26px;
}
.caution {
  display: block;
  color: rgb(var(--v-theme-error));
}
summary {
  min-height: 32px;
  cursor: pointer;
}
@media (width < 900px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
