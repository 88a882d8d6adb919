<script setup lang="ts">
import type { NewRecord, RecordKind, TodayLine } from '@karyotome/contract';
import type { CareAct } from '@karyotome/core';
import { taskWords } from '@karyotome/words';
import { computed, defineAsyncComponent } from 'vue';
import { useRouter } from 'vue-router';
import { farmToday } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useSession } from '../../stores/session.ts';
import { useQuickRecord } from '../records/useQuickRecord.ts';
import type { RecordSubject } from '../records/useRecordForm.ts';
import { mealEntry } from '../rounds/round-acts.ts';
import { homeOf, subjectOf } from './today-subject.ts';

// Fetched when one is there.
const HealthActs = defineAsyncComponent(() => import('../health/HealthActs.vue'));
// Fetched when it is first opened.
const OtherMeals = defineAsyncComponent(() => import('./OtherMeals.vue'));

/** What can be done about one task, on the spot. */
const props = defineProps<{ line: TodayLine; mayRecord: boolean }>();
const emit = defineEmits<{
  record: [RecordSubject];
  heat: [NonNullable<TodayLine['zone']>];
  mites: [rackId: string];
}>();
const OPENS: readonly TodayLine['kind'][] = ['season', 'stock', 'concern', 'settle'];
const session = useSession();
const router = useRouter();
const quick = useQuickRecord();
const KIND: Partial<Record<TodayLine['kind'], RecordKind>> = {
  weigh: 'weight',
  shed: 'shed',
  'first-shed': 'shed',
  sex: 'sex',
  identify: 'identification',
  move: 'move',
  loan: 'loan-end',
};
const VERBS: Partial<Record<TodayLine['kind'], string>> = {
  weigh: 'Weigh',
  shed: 'Shed…',
  'first-shed': 'Shed…',
  sex: 'Sex…',
  identify: 'Identify…',
  move: 'Move…',
  loan: 'It is over…',
};
const isMeal = computed(() => props.mayRecord && props.line.kind === 'meal' && props.line.preset !== null);

async function meal(taken: boolean): Promise<void> {
  if (!isMeal.value || quick.busy.value) return;
  const entry = mealEntry(props.line.preset!, taken);
  await record(entry.record, entry.text);
}
defineExpose({ meal });
const care = (act: CareAct, text: string): Promise<void> =>
  record({ kind: 'care', on: farmToday(), body: { act } }, text);
const record = (what: NewRecord, text: string): Promise<void> => quick.log(props.line.animal!, what, text);
/** After a bad shed the skin is soaked; a shed that goes on is looked at. */
const isSoak = computed(() => props.line.code === 'soak-due' || props.line.code === 'retained-shed');
function open(kind: RecordKind): void {
  // What hatched here is looked at on its clutch's table.
  if (kind === 'identification' && props.line.animal?.clutchId) return void router.push(homeOf(props.line));
  const { animal, advice, preset } = props.line;
  const isAdvised = advice?.verdict === 'move-up' || advice?.verdict === 'go-back';
  const tub = isAdvised ? advice.freeTubs[0] : undefined;
  const reason = taskWords(props.line, reader()).text;
  emit('record', {
    animalId: animal!.id,
    number: animal!.number,
    kind,
    prey: preset,
    ...(kind === 'move' && tub ? { begin: { toTubId: tub.tubId, reason } } : {}),
  });
}
</script>

<template>
  <template v-if="isMeal">
    <v-btn color="primary" variant="flat" :loading="quick.busy.value" @click="meal(true)">Taken</v-btn>
    <v-btn variant="outlined" :disabled="quick.busy.value" @click="meal(false)">Refused</v-btn>
    <v-menu>
      <template #activator="{ props: activator }">
        <v-btn v-bind="activator" variant="text" :aria-label="`${subjectOf(line)}: another meal, or none`"
          >Other…</v-btn
        >
      </template>
      <OtherMeals
        @meal="open('feeding')"
        @not-offered="care('not-offered', 'not offered')"
        @regurgitated="care('regurgitated', 'regurgitated')"
      />
    </v-menu>
  </template>
  <template v-else-if="mayRecord && isSoak">
    <v-btn variant="outlined" :disabled="quick.busy.value" @click="care('soaked', 'soaked')">Soaked</v-btn>
    <v-btn variant="outlined" :disabled="quick.busy.value" @click="care('caps-checked', 'all off now')"
      >All off</v-btn
    >
  </template>
  <v-btn
    v-else-if="mayRecord && line.kind === 'clean'"
    variant="outlined"
    :loading="quick.busy.value"
    @click="care('cleaned', 'tub cleaned')"
    >Cleaned</v-btn
  >
  <v-btn v-else-if="mayRecord && line.rack" variant="outlined" @click="emit('mites', line.rack.id)"
    >Look through…</v-btn
  >
  <HealthActs
    v-else-if="mayRecord && (line.kind === 'dose' || line.kind === 'health')"
    :line="line"
    @record="emit('record', $event)"
  />
  <v-btn v-else-if="mayRecord && line.zone" variant="outlined" @click="emit('heat', line.zone)">Check…</v-btn>
  <v-btn
    v-else-if="line.clutch || line.incubator || line.room || OPENS.includes(line.kind)"
    variant="outlined"
    :to="homeOf(line)"
    >Open</v-btn
  >
  <v-btn
    v-else-if="KIND[line.kind] && session.mayEnter(KIND[line.kind]!)"
    variant="outlined"
    @click="open(KIND[line.kind]!)"
    >{{ VERBS[line.kind] }}</v-btn
  >
</template>
