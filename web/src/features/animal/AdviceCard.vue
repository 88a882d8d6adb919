<script setup lang="ts">
import type { AnimalView } from '@karyotome/contract';
import { computed } from 'vue';
import { moveReasonWords } from '@karyotome/words';
import { dayWords, massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';

/** The advised move, or the advice against it, with the reasons on both sides and how earlier moves turned out. */
const props = defineProps<{ animal: AnimalView; mayMove: boolean }>();
const emit = defineEmits<{ move: [{ tubId: string | null; reason: string }] }>();
const HEADS = {
  'move-up': 'Move it up',
  hold: 'Leave it where it is',
  'go-back': 'Move it back to its last tub',
  none: 'Stays where it is',
} as const;
const OUTCOMES = {
  settling: 'settling',
  settled: 'settled: it has eaten since',
  'not-eating': 'not eating since',
  'not-offered': 'no meal offered since',
} as const;
const advice = computed(() => props.animal.advice);
const isNowhere = computed(() => advice.value.verdict === 'none' && props.animal.tub === null);
const step = computed(() =>
  props.animal.currentStep === null ? null : props.animal.steps[props.animal.currentStep],
);
const moves = computed(() =>
  props.animal.records
    .filter((record) => record.kind === 'move' && record.voided === null && record.body.fromTubId !== null)
    .slice(0, 3),
);
const reasons = computed(() =>
  advice.value.reasons.map((reason) => ({ ...reason, words: moveReasonWords(reason, reader()) })),
);
/** What blocks is not weighed. */
const sum = (side: 'for' | 'against'): number =>
  advice.value.reasons.reduce((total, one) => total + (one.side === side && !one.blocks ? one.weight : 0), 0);
function move(): void {
  const free = advice.value.freeTubs[0];
  emit('move', {
    tubId: free?.tubId ?? null,
    reason: reasons.value.find(({ side }) => side === 'for')?.words.text ?? '',
  });
}
</script>

<template>
  <v-card class="box" :class="advice.verdict">
    <div class="row">
      <h2>{{ isNowhere ? 'No tub yet' : HEADS[advice.verdict] }}</h2>
      <v-spacer />
      <v-btn
        v-if="mayMove && advice.verdict !== 'none'"
        :color="advice.verdict === 'hold' ? undefined : 'primary'"
        :variant="advice.verdict === 'hold' ? 'outlined' : 'flat'"
        @click="move"
      >
        {{ advice.verdict === 'hold' ? 'Move anyway…' : 'Move…' }}
      </v-btn>
    </div>
    <p v-if="advice.from" class="small">
      {{ advice.ladder }}: {{ advice.from }}<template v-if="advice.to"> → {{ advice.to }}</template>
      <template v-if="step && advice.verdict === 'none'"
        >,
        {{
          step.maxG === null ? `from ${massWords(step.minG)}` : reader().massSpan(step.minG, step.maxG)
        }}</template
      >
    </p>
    <p v-else class="soft small">It lives in no tub. Put it into one to get advice on moving up.</p>
    <ul v-if="advice.reasons.length" class="reasons">
      <li v-for="reason in reasons" :key="reason.code">
        <span class="side" :class="reason.side">{{ reason.side }}</span>
        <span>
          {{ reason.words.text }}.
          <span class="small soft">{{ reason.words.rule }}</span>
        </span>
        <span class="num small soft">{{ reason.blocks ? 'not now' : reason.weight }}</span>
      </li>
    </ul>
    <p v-if="advice.verdict === 'move-up' || advice.verdict === 'hold'" class="small">
      Weighed: {{ sum('for') }} for, {{ sum('against') }} against<template
        v-if="advice.reasons.some(({ blocks }) => blocks)"
        >; what stands as “not now” decides by itself</template
      >.
    </p>
    <p v-if="advice.verdict === 'move-up' && advice.freeTubs.length === 0" class="small">
      No tub of that kind is free.
    </p>
    <p v-for="record in moves" :key="record.id" class="small soft">
      <template v-if="record.kind === 'move'"
        >{{ dayWords(record.on) }}: {{ record.body.from }} → {{ record.body.to ?? 'no tub' }},
        {{ OUTCOMES[animal.moveOutcomes[record.id] ?? 'settling'] }}</template
      >
    </p>
  </v-card>
</template>

<style scoped>
.move-up,
.go-back {
  border: 2px solid rgb(var(--v-theme-secondary)) !important;
}
.reasons {
  display: grid;
  gap: 8px;
  padding: 0;
  list-style: none;
}
.reasons li {
  display: grid;
  grid-template-columns: 62px 1fr auto;
  gap: 10px;
}
.side {
  align-self: start;
  padding: 1px 8px;
  border-radius: 6px;
  font-size: 0.8rem;
  font-weight: 640;
  text-align: center;
  border: 1.5px solid currentcolor;
}
.side.against {
  border-style: dashed;
}
</style>
