<script setup lang="ts">
import { isGone, type AnimalView, type RecordKind } from '@karyotome/contract';
import { recordWords, SIGNS_FOR_VET } from '@karyotome/words';
import { computed } from 'vue';
import { dayWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { standingRecord } from '../records/standing-record.ts';
import HealthEntries from './HealthEntries.vue';

/** An animal's health: what is open, and what a veterinarian said last. */
const props = defineProps<{ animal: AnimalView; mayRecord: boolean }>();
const emit = defineEmits<{ record: [kind: RecordKind, begin?: Partial<Record<string, unknown>>] }>();
const health = computed(() => props.animal.care.health);
const visit = computed(() => standingRecord(props.animal.records, 'vet-visit'));
const examination = computed(() => standingRecord(props.animal.records, 'post-mortem'));
</script>

<template>
  <v-card class="box">
    <div class="row">
      <h2>Health</h2>
      <v-spacer />
      <v-menu v-if="mayRecord && (!isGone(animal) || animal.status === 'died')">
        <template #activator="{ props: activator }">
          <v-btn v-bind="activator" size="small" variant="text">Record…</v-btn>
        </template>
        <v-list>
          <template v-if="!isGone(animal)">
            <v-list-item title="Health check…" @click="emit('record', 'health-check')" />
            <v-list-item title="Visit to a veterinarian…" @click="emit('record', 'vet-visit')" />
            <v-list-item title="Treatment…" @click="emit('record', 'treatment')" />
            <v-list-item title="Quarantine…" @click="emit('record', 'quarantine')" />
          </template>
          <v-list-item
            v-if="animal.status === 'died'"
            title="Post-mortem examination…"
            @click="emit('record', 'post-mortem')"
          />
        </v-list>
      </v-menu>
    </div>
    <HealthEntries
      :animal="animal"
      :health="animal.care.health"
      :may-record="mayRecord && !isGone(animal)"
      @record="(...what) => emit('record', ...what)"
    />
    <p v-if="visit" class="small">
      <router-link :to="`#record-${visit.id}`">{{ dayWords(visit.on) }}</router-link>,
      {{ recordWords(visit, reader()) }}
    </p>
    <p v-if="examination" class="small">
      Post-mortem examination, {{ dayWords(examination.on) }}, {{ recordWords(examination, reader()) }}
    </p>
    <p v-if="health.openSigns" class="small soft">{{ SIGNS_FOR_VET }}</p>
    <p v-else class="small soft">
      {{
        health.lastCheckOn
          ? `Looked through ${dayWords(health.lastCheckOn)}: nothing found.`
          : 'No health check recorded.'
      }}
    </p>
  </v-card>
</template>
