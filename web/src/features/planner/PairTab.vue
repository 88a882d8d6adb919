<script setup lang="ts">
import type { PlannerView } from '@karyotome/contract';
import { chanceAbove, MOST_CLUTCHES } from '@karyotome/core';
import { computed } from 'vue';
import { oddsWords } from '../../format/format.ts';
import OutcomeList from '../../ui/OutcomeList.vue';
import type { PairQuestion } from '../../workers/planner-questions.ts';
import { useAnswer } from '../../workers/useAnswer.ts';
import type { PlannerWorker } from '../../workers/usePlanner.ts';
import ParentField from './ParentField.vue';
import { chosenParent, type PlannerDraft } from './planner-draft.ts';
import { kinWords, perEggWords } from './planner-words.ts';

/** One pair, before they are introduced: what to beware of first, then the odds. */
/** The form's state, shared by all tabs: each changes it in place. */
const draft = defineModel<PlannerDraft>('draft', { required: true });
const props = defineProps<{
  view: PlannerView;
  animals: PlannerView['animals'];
  planner: PlannerWorker;
}>();
const question = computed((): PairQuestion | null => {
  const dam = chosenParent(draft.value.dam);
  const sire = chosenParent(draft.value.sire);
  return dam && sire ? { ask: 'pair', dam, sire, target: draft.value.target } : null;
});
const { answer } = useAnswer(props.planner, question);
const isOverBound = computed(() => (answer.value?.inbreeding ?? 0) > props.view.rules.inbreedingBound + 1e-9);
const rows = computed(() => {
  const chances = answer.value?.target;
  if (!chances || chances.perEgg === 0) return [];
  const clutches = (count: number | null): string =>
    count === null
      ? `not within ${MOST_CLUTCHES} clutches`
      : count === 1
        ? 'the first clutch'
        : `${count} clutches`;
  return [
    ['One egg', perEggWords(chances.perEgg)],
    ['At least one in her next clutch', oddsWords(chances.inClutch)],
    [
      'Clutches until the first, on average',
      chances.expectedClutches === null
        ? 'without bound: they may be unable to'
        : chances.expectedClutches.toFixed(1),
    ],
    ['Even odds after', clutches(chances.clutchesForHalf)],
    ['9 in 10 after', clutches(chances.clutchesForNineInTen)],
  ];
});
/** "4 to 9": what eight in ten of her clutches hold. */
const sizeWords = computed(() => {
  const size = answer.value?.size;
  if (!size) return '';
  const { first, odds } = size.odds;
  const values = odds.map((_, i) => first + i);
  const low = values.find((value) => 1 - chanceAbove(size.odds, value) >= 0.1) ?? first;
  const high = values.find((value) => chanceAbove(size.odds, value) <= 0.1) ?? first;
  const basis =
    size.clutches === 0
      ? 'common practice, no clutch of hers yet'
      : `${size.clutches} of her own beside common practice`;
  return `${size.mean.toFixed(1)} good eggs on average, mostly ${low} to ${high} (${basis}); ${oddsWords(answer.value!.hatch)} of them hatch`;
});
</script>

<template>
  <div class="desk">
    <v-card class="part">
      <ParentField :model-value="draft.dam" title="Female" sex="female" :animals="animals" />
      <ParentField :model-value="draft.sire" title="Male" sex="male" :animals="animals" />
    </v-card>
    <v-card v-if="answer" class="part">
      <v-alert v-if="answer.cautions.length > 0 || isOverBound" type="warning" variant="tonal" :icon="false">
        <strong>Before you do</strong>
        <ul class="cautions">
          <li v-for="caution in answer.cautions" :key="caution">{{ caution }}</li>
          <li v-if="isOverBound">
            The young would be inbred by {{ oddsWords(answer.inbreeding!) }}: over your bound of
            {{ oddsWords(view.rules.inbreedingBound) }}.
          </li>
        </ul>
      </v-alert>
      <dl class="facts">
        <dt>Expected inbreeding of the young</dt>
        <dd>{{ kinWords(answer.inbreeding) }}</dd>
        <dt>Her clutch</dt>
        <dd>{{ sizeWords }}</dd>
      </dl>
      <p v-if="answer.target?.perEgg === 0">
        <strong>This pair cannot give {{ draft.target }}.</strong>
      </p>
      <section v-if="rows.length > 0">
        <h2>{{ draft.target }}</h2>
        <dl class="facts">
          <template v-for="[what, value] in rows" :key="what">
            <dt>{{ what }}</dt>
            <dd>
              <strong>{{ value }}</strong>
            </dd>
          </template>
        </dl>
      </section>
      <section>
        <h2>What they can produce, by what shows</h2>
        <OutcomeList :outcomes="answer.outcomes.slice(0, 24)" />
        <p v-if="answer.outcomes.length > 24" class="small soft">
          and {{ answer.outcomes.length - 24 }} rarer kinds
        </p>
      </section>
    </v-card>
    <v-card v-else class="part">
      <h2>Choose a female and a male</h2>
      <p>
        Animals of your own bring all that their records and kin say. Genes can be typed for one that you do
        not have. What to beware of stands above the odds.
      </p>
    </v-card>
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: 390px minmax(0, 1fr);
  align-items: start;
  gap: 16px;
}
.part {
  display: grid;
  gap: 16px;
  padding: 16px;
}
.cautions {
  margin: 4px 0 0;
  padding-left: 20px;
}
.facts {
  display: grid;
  grid-template-columns: minmax(160px, max-content) 1fr;
  gap: 4px 16px;
}
.facts dd {
  margin: 0;
}
h2 {
  margin-bottom: 6px;
}
@media (width < 900px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
