<script setup lang="ts">
import type { AnimalView, NewRecord, RecordKind } from '@karyotome/contract';
import type { TreatmentCourse } from '@karyotome/core';
import {
  capital,
  courseProgressWords,
  courseWords,
  QUARANTINE_REASON_WORDS,
  recordWords,
  SIGNS_FOR_VET,
  signsWords,
} from '@karyotome/words';
import { computed } from 'vue';
import { dayWords, farmToday } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useQuickRecord } from '../records/useQuickRecord.ts';
import { clearCheck, doseEntry, quarantineEnd } from './health-acts.ts';

/** An animal's health: signs that are there, treatments, quarantine, and what a veterinarian said last. */
const props = defineProps<{ animal: AnimalView; mayRecord: boolean }>();
const emit = defineEmits<{ record: [kind: RecordKind, begin?: Partial<Record<string, unknown>>] }>();
const quick = useQuickRecord();
const health = computed(() => props.animal.care.health);
const last = (kind: RecordKind): AnimalView['records'][number] | undefined =>
  props.animal.records.find((record) => record.kind === kind && record.voided === null);
const visit = computed(() => last('vet-visit'));
const examination = computed(() => last('post-mortem'));
const log = ({ record, text }: { record: NewRecord; text: string }): Promise<void> =>
  quick.log(props.animal, record, text);
const isDue = ({ next }: TreatmentCourse): boolean => next !== null && next.dueOn <= farmToday();
</script>

<template>
  <v-card class="box">
    <div class="row">
      <h2>Health</h2>
      <v-spacer />
      <v-menu v-if="mayRecord">
        <template #activator="{ props: activator }">
          <v-btn v-bind="activator" size="small" variant="text">Record…</v-btn>
        </template>
        <v-list>
          <v-list-item title="Health check…" @click="emit('record', 'health-check')" />
          <v-list-item title="Visit to a veterinarian…" @click="emit('record', 'vet-visit')" />
          <v-list-item title="Treatment…" @click="emit('record', 'treatment')" />
          <v-list-item title="Quarantine…" @click="emit('record', 'quarantine')" />
          <v-list-item
            v-if="animal.status === 'died'"
            title="Post-mortem examination…"
            @click="emit('record', 'post-mortem')"
          />
        </v-list>
      </v-menu>
    </div>
    <div v-if="health.openSigns" class="entry">
      <p>
        <strong>{{ capital(signsWords(health.openSigns)) }}</strong>, since
        {{ dayWords(health.openSigns.since) }}, last looked at {{ dayWords(health.openSigns.lastOn) }}
      </p>
      <p class="small soft">{{ SIGNS_FOR_VET }}</p>
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
    <p v-if="visit" class="small">
      <router-link :to="`#record-${visit.id}`">{{ dayWords(visit.on) }}</router-link>,
      {{ recordWords(visit, reader()) }}
    </p>
    <p v-if="examination" class="small">
      Post-mortem examination, {{ dayWords(examination.on) }}, {{ recordWords(examination, reader()) }}
    </p>
    <p v-if="!health.openSigns" class="small soft">
      {{
        health.lastCheckOn
          ? `Looked through ${dayWords(health.lastCheckOn)}: nothing found.`
          : 'No health check recorded.'
      }}
    </p>
  </v-card>
</template>

<style scoped>
.entry {
  display: grid;
  gap: 6px;
}
</style>
