<script setup lang="ts">
import type { NewRecord, RecordKind, TodayLine } from '@karyotome/contract';
import { farmToday } from '../../format/format.ts';
import { useQuickRecord } from '../records/useQuickRecord.ts';
import type { RecordSubject } from '../records/useRecordForm.ts';
import { clearCheck, doseEntry, quarantineEnd } from './health-acts.ts';

/** What is done about one task of an animal's health. */
const props = defineProps<{ line: TodayLine }>();
const emit = defineEmits<{ record: [RecordSubject] }>();
const quick = useQuickRecord();
const log = ({ record, text }: { record: NewRecord; text: string }): Promise<void> =>
  quick.log(props.line.animal!, record, text);
function open(kind: RecordKind, begin?: RecordSubject['begin']): void {
  const { id, number } = props.line.animal!;
  emit('record', { animalId: id, number, kind, ...(begin ? { begin } : {}) });
}
</script>

<template>
  <template v-if="line.code === 'dose-due'">
    <v-btn
      color="primary"
      variant="flat"
      :loading="quick.busy.value"
      @click="log(doseEntry(line.facts, true, farmToday()))"
      >Given</v-btn
    >
    <v-btn
      variant="outlined"
      :disabled="quick.busy.value"
      @click="log(doseEntry(line.facts, false, farmToday()))"
      >Left out</v-btn
    >
  </template>
  <template v-else-if="line.code === 'signs-recheck-due' || line.code === 'quarantine-check-due'">
    <v-btn variant="outlined" :disabled="quick.busy.value" @click="log(clearCheck(farmToday()))"
      >Nothing found</v-btn
    >
    <v-btn
      variant="outlined"
      @click="
        open('health-check', line.code === 'signs-recheck-due' ? { signs: [...line.facts.signs] } : undefined)
      "
      >Signs…</v-btn
    >
  </template>
  <v-btn
    v-else-if="line.code === 'visit-due'"
    variant="outlined"
    @click="open('vet-visit', { veterinarian: line.facts.veterinarian })"
    >Visit…</v-btn
  >
  <template v-else-if="line.code === 'quarantine-over'">
    <v-btn
      variant="outlined"
      :disabled="quick.busy.value"
      @click="log(quarantineEnd(line.facts.reason, farmToday()))"
      >End it</v-btn
    >
    <v-btn variant="outlined" @click="open('quarantine', { reason: line.facts.reason })">Longer…</v-btn>
  </template>
</template>
