<script setup lang="ts">
import type { AnimalView, RecordKind } from '@karyotome/contract';
import type { Worked } from '@karyotome/core';
import { mealWhy, milestoneWords, ownRulesWords, preyWords, soakAdvice } from '@karyotome/words';
import { computed } from 'vue';
import { dayWords, massWords, oddsWords, spanOfDays } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import WhyPanel from '../../ui/WhyPanel.vue';
import { reachWords, VERDICT_WORDS, workedWords } from './care-words.ts';

/** How it is kept: its next meal and the step of its plan, what worked, its shed, and what it is growing towards. */
const props = defineProps<{ animal: AnimalView; mayRecord: boolean }>();
const emit = defineEmits<{ record: [kind: RecordKind, begin?: Partial<Record<string, unknown>>] }>();
const care = computed(() => props.animal.care);
const meal = computed(() => props.animal.nextMeal);
/** What was tried in more than one way says something; one way only says nothing. */
const worked = computed(() => {
  const groups = new Map<Worked['by'], Worked[]>();
  for (const one of care.value.worked) groups.set(one.by, [...(groups.get(one.by) ?? []), one]);
  return [...groups.values()].filter((group) => group.length > 1).flat();
});
const trying = computed(() => {
  const plan = meal.value?.plan;
  if (!plan?.step || (plan.index === 0 && plan.triesUsed === 0)) return null;
  return plan;
});
</script>

<template>
  <v-card class="box">
    <div class="row">
      <h2>Keeping</h2>
      <v-spacer />
      <v-btn
        v-if="mayRecord"
        size="small"
        variant="text"
        @click="emit('record', 'own-way', { ...animal.care.own })"
        >Individual rules…</v-btn
      >
    </div>
    <template v-if="meal">
      <p>
        <strong>{{ VERDICT_WORDS[meal.verdict] }}</strong>: {{ preyWords(meal, reader()) }},
        {{ dayWords(meal.dueOn) }}
        <WhyPanel title="The next meal">
          <p>{{ mealWhy(meal, reader()) }}</p>
          <p class="small soft">
            Plan: {{ care.plan.name }}. Individual rules: {{ ownRulesWords(care.own, reader()) }}.
          </p>
        </WhyPanel>
      </p>
      <p v-if="trying">
        Step {{ trying.index + 1 }} of {{ care.plan.steps.length }}: <strong>{{ trying.step!.name }}</strong>,
        {{ trying.triesUsed }} of {{ trying.step!.tries }} tries used.
        <template v-if="trying.next">
          Then: {{ trying.next.name.toLowerCase()
          }}<template v-if="trying.nextNotBefore">, not before {{ dayWords(trying.nextNotBefore) }}</template
          ><template v-if="trying.next.onlyLosing">, and only while it loses weight</template>.
        </template>
        <span v-if="trying.step!.caution" class="small caution">{{ trying.step!.caution }}</span>
      </p>
    </template>
    <p v-if="care.shed">
      <strong>In shed ({{ care.shed.stage }}), day {{ care.shed.days }}</strong
      >: shed expected {{ spanOfDays(care.shed.expected.from, care.shed.expected.to) }}. Humidity 75 to 80%,
      no handling, no cleaning.
    </p>
    <p v-if="care.soak">
      <strong>{{
        care.soak.veterinarian ? 'See a veterinarian' : `Soak, day ${care.soak.soaks.length + 1}`
      }}</strong>. {{ soakAdvice(reader()) }}
      <span v-if="mayRecord" class="row">
        <v-btn size="small" variant="outlined" @click="emit('record', 'care', { act: 'soaked' })"
          >Soaked</v-btn
        >
        <v-btn size="small" variant="outlined" @click="emit('record', 'care', { act: 'caps-checked' })"
          >All off now</v-btn
        >
      </span>
    </p>
    <template v-if="care.growth">
      <h3>Growth</h3>
      <p v-if="care.growth.percentile" class="small">
        Heavier for its age than {{ oddsWords(care.growth.percentile.share) }} of the
        {{ care.growth.percentile.of }} {{ animal.sex }}s of about its age here.
      </p>
      <p v-for="next in care.growth.reaches" :key="next.code" class="small">
        {{ massWords(next.massG) }}, {{ milestoneWords(next, reader()) }}: {{ reachWords(next.reach) }}
      </p>
      <p v-for="outlier in care.growth.outliers" :key="outlier.record" class="small">
        {{ massWords(outlier.massG) }} on {{ dayWords(outlier.on) }} lies far
        {{ outlier.z < 0 ? 'below' : 'above' }} what was expected: was it this animal?
        <router-link :to="`#record-${outlier.record}`">The record</router-link>
      </p>
    </template>
    <template v-if="worked.length > 0">
      <h3>What worked</h3>
      <table class="figures small">
        <thead>
          <tr>
            <th>Offered</th>
            <th class="num">taken</th>
            <th class="num">between</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in worked" :key="one.by + one.value">
            <td>{{ workedWords(one, care.plan) }}</td>
            <td class="num">{{ one.count }} of {{ one.of }}</td>
            <td class="num soft">{{ Math.round(one.low * 100) }} and {{ reader().percent(one.high) }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </v-card>
</template>

<style scoped>
.caution {
  display: block;
  color: rgb(var(--v-theme-error));
}
</style>
