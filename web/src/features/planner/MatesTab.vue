<script setup lang="ts">
import type { PlannerView } from '@karyotome/contract';
import { againstPairWords } from '@karyotome/words';
import { computed, ref } from 'vue';
import { oddsWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import type { MatesQuestion, RankedMate } from '../../workers/planner-questions.ts';
import { useAnswer } from '../../workers/useAnswer.ts';
import type { PlannerWorker } from '../../workers/usePlanner.ts';
import type { PlannerDraft } from './planner-draft.ts';
import { kinWords, namesOf } from './planner-words.ts';

/** For a target, the pairs of one's own animals that can give it, the best first, with the reasons against each. */
/** The form's state, shared by all tabs: each changes it in place. */
const draft = defineModel<PlannerDraft>('draft', { required: true });
const props = defineProps<{ view: PlannerView; planner: PlannerWorker }>();
const question = computed((): MatesQuestion | null =>
  draft.value.target.trim() === '' ? null : { ask: 'mates', target: draft.value.target },
);
const { answer, isWorking } = useAnswer(props.planner, question);
const onlyNow = ref(false);
const nameOf = computed(() => namesOf(props.view));
const shown = computed(() =>
  (answer.value ?? []).filter(({ against }) => !onlyNow.value || against.length === 0),
);
const SHOWN = 25;
/** Ranks of pairs with nothing against them come first: the line between the two kinds is drawn once. */
const firstLater = computed(() => shown.value.findIndex(({ against }) => against.length > 0));
function open(pair: RankedMate): void {
  Object.assign(draft.value.dam, { kind: 'owned', animalId: pair.dam });
  Object.assign(draft.value.sire, { kind: 'owned', animalId: pair.sire });
  draft.value.tab = 'pair';
}
</script>

<template>
  <v-card v-if="!question" class="part">
    <h2>Say what you want</h2>
    <p>Type the target above: every pair of your own animals that can give it is ranked here.</p>
  </v-card>
  <v-card v-else-if="answer && answer.length === 0" class="part">
    <h2>No pair of yours can give it in one step</h2>
    <p>Look for a route over several seasons instead.</p>
    <div class="row"><v-btn variant="outlined" @click="draft.tab = 'routes'">Find routes</v-btn></div>
  </v-card>
  <v-card v-else class="part">
    <div class="row">
      <h2>{{ shown.length }}{{ shown.length === 60 ? ' best' : '' }} pairs can give it</h2>
      <v-spacer />
      <v-switch v-model="onlyNow" label="Only pairs with nothing against them" color="primary" hide-details />
    </div>
    <v-progress-linear v-if="isWorking" indeterminate aria-label="Looking for pairs" />
    <div class="scroll">
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">Female</th>
            <th scope="col">Male</th>
            <th scope="col" class="num">One egg</th>
            <th scope="col" class="num">Next clutch</th>
            <th scope="col" class="num">Inbreeding</th>
            <th scope="col" class="num">His load left</th>
            <th scope="col">Reasons against</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(pair, index) in shown.slice(0, SHOWN)"
            :key="pair.dam + pair.sire"
            :class="{ line: index > 0 && index === firstLater }"
          >
            <td>{{ nameOf(pair.dam) }}</td>
            <td>{{ nameOf(pair.sire) }}</td>
            <td class="num">
              <strong>{{ oddsWords(pair.perEgg) }}</strong>
            </td>
            <td class="num">{{ oddsWords(pair.inClutch) }}</td>
            <td class="num">{{ kinWords(pair.inbreeding) }}</td>
            <td class="num">{{ Math.max(0, pair.freeLoad) }}</td>
            <td class="small">
              {{ pair.against.map((one) => againstPairWords(one, reader())).join('; ') || 'nothing' }}
            </td>
            <td><v-btn size="small" variant="text" @click="open(pair)">Look</v-btn></td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="small soft">
      Pairs with nothing against them first, then the others; within each, by the odds per egg, then by how
      little related they are.
    </p>
  </v-card>
</template>

<style scoped>
.part {
  display: grid;
  gap: 12px;
  padding: 16px;
}
td:first-child,
td:nth-child(2) {
  white-space: nowrap;
}
.line td {
  border-top: 3px double var(--soft);
}
</style>
