<script setup lang="ts">
import type { NewRecord, RecordKind } from '@karyotome/contract';
import type { HealthState, TreatmentCourse } from '@karyotome/core';
import {
  capital,
  courseProgressWords,
  courseWords,
  QUARANTINE_REASON_WORDS,
  signsWords,
} from '@karyotome/words';
import { dayWords, farmToday } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useQuickRecord } from '../records/useQuickRecord.ts';
import { clearCheck, doseEntry, quarantineEnd } from './health-acts.ts';

/** What of an animal's health is open: signs, courses of treatment, quarantine, the next visit; each with its buttons. */
const props = defineProps<{
  animal: { readonly id: string; readonly number: string };
  health: HealthState;
  mayRecord: boolean;
}>();
const emit = defineEmits<{ record: [kind: RecordKind, begin?: Partial<Record<string, unknown>>] }>();
const quick = useQuickRecord();
const log = ({ record, text }: { record: NewRecord; text: string }): Promise<void> =>
  quick.log(props.animal, record, text);
const isDue = ({ next }: TreatmentCourse): boolean => next !== null && next.dueOn <= farmToday();
</script>

<template>
  <div v-if="health.openSigns" class="entry">
    <p>
      <strong>{{ capital(signsWords(health.openSigns)) }}</strong>, since
      {{ dayWords(health.openSigns.since) }}, last looked at {{ dayWords(health.openSigns.lastOn) }}
    </p>
    <span v-if="mayRecord" class="row">
      <v-btn
        size="small"
        variant="outlined"
        :disabled="quick.busy.value"
        @click="log(clearCheck(farmToday()))"
        >Gone now</v-btn
      >
      <v-btn
        size="small"
        variant="outlined"
        @click="emit('record', 'health-check', { signs: [...health.openSigns.signs] })"
        >Still there…</v-btn
      >
    </span>
  </div>
  <div v-for="course in health.courses" :key="course.courseId" class="entry">
    <p>
      <strong>{{ course.what }}</strong>: {{ courseWords(course, reader()) }}
    </p>
    <p class="small">
      {{ courseProgressWords(course, reader()) }}. Dose {{ course.next!.ordinal }}
      {{ isDue(course) ? 'is due' : 'follows' }} {{ dayWords(course.next!.dueOn) }}.
    </p>
    <span v-if="mayRecord" class="row">
      <template v-if="isDue(course)">
        <v-btn
          size="small"
          color="primary"
          variant="flat"
          :loading="quick.busy.value"
          @click="log(doseEntry({ ...course, ordinal: course.next!.ordinal }, true, farmToday()))"
          >Given</v-btn
        >
        <v-btn
          size="small"
          variant="outlined"
          :disabled="quick.busy.value"
          @click="log(doseEntry({ ...course, ordinal: course.next!.ordinal }, false, farmToday()))"
          >Left out</v-btn
        >
      </template>
      <v-btn
        size="small"
        variant="outlined"
        @click="emit('record', 'treatment-end', { courseId: course.courseId })"
        >End it…</v-btn
      >
    </span>
  </div>
  <div v-if="health.quarantine" class="entry">
    <p>
      <strong>In quarantine</strong> until {{ dayWords(health.quarantine.until) }}, since
      {{ dayWords(health.quarantine.since) }}: {{ QUARANTINE_REASON_WORDS[health.quarantine.reason] }}
    </p>
    <span v-if="mayRecord" class="row">
      <v-btn
        size="small"
        variant="outlined"
        :disabled="quick.busy.value"
        @click="log(quarantineEnd(health.quarantine.reason, farmToday()))"
        >End it</v-btn
      >
      <v-btn
        size="small"
        variant="outlined"
        @click="emit('record', 'quarantine', { reason: health.quarantine.reason })"
        >Longer…</v-btn
      >
    </span>
  </div>
  <p v-if="health.nextVisit">
    Visit to {{ health.nextVisit.veterinarian }} {{ dayWords(health.nextVisit.on) }}
    <v-btn
      v-if="mayRecord"
      size="small"
      variant="text"
      @click="emit('record', 'vet-visit', { veterinarian: health.nextVisit.veterinarian })"
      >Record it…</v-btn
    >
  </p>
</template>

<style scoped>
.entry {
  display: grid;
  gap: 6px;
}
</style>
