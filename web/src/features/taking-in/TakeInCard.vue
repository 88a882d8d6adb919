<script setup lang="ts">
import type { TakeInPreview } from '@karyotome/contract';
import { tellTakeInConflict } from '@karyotome/words';
import { computed } from 'vue';
import { dayWords, sexSign } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import VerifiedDocument from '../verify/VerifiedDocument.vue';

/** What taking in one animal would do. */
const props = defineProps<{ preview: TakeInPreview }>();
const ancestors = computed(() => props.preview.relatives.filter(({ isAncestor }) => isAncestor));
const others = computed(() => props.preview.relatives.filter(({ isAncestor }) => !isAncestor));
const known = computed(() => props.preview.relatives.filter(({ number }) => number !== null));
const state = computed(() => {
  const { here, subject, isNew, verification } = props.preview;
  if (!verification.valid) return 'It does not hold: nothing of it can be taken in.';
  if (!here) return 'It is new here.';
  if (here.isOwn)
    return `It is your own ${here.number}: your records of it stand, and its relatives’ evidence is taken.`;
  if (!isNew)
    return `It is here already as ${here.number}, with statement ${here.statement ?? ''}: this one is no newer.`;
  return `It is here as ${here.number}. This is statement ${verification.subject.statement} of ${subject.number}.`;
});
</script>

<template>
  <VerifiedDocument :document="preview.verification" />
  <v-card class="box">
    <h2>{{ preview.subject.number }} {{ sexSign(preview.subject.sex) }} {{ preview.subject.name }}</h2>
    <p>
      <strong>{{ preview.subject.label }}</strong>
    </p>
    <p class="small soft">
      {{ preview.subject.hatchedOn ? `Hatched ${dayWords(preview.subject.hatchedOn)}. ` : ''
      }}{{ preview.records }} records, {{ preview.pictures }} pictures, {{ ancestors.length }} ancestors and
      {{ others.length }} other relatives come along.
    </p>
    <p>{{ state }}</p>
    <p v-if="known.length" class="small">
      Known here: {{ known.map(({ number }) => number).join(', ') }}. What you recorded of your own animals
      stands.
    </p>
    <template v-if="preview.changes.length">
      <h3>Since the statement before</h3>
      <p v-for="change in preview.changes" :key="change.locus" class="small">
        {{ change.from ?? 'not claimed' }} became <strong>{{ change.to ?? 'not claimed' }}</strong>
      </p>
    </template>
    <v-alert v-if="preview.conflicts.length" type="warning" variant="tonal" :icon="false">
      <p v-for="(conflict, index) in preview.conflicts" :key="index">
        {{ tellTakeInConflict(conflict, reader()) }}
      </p>
    </v-alert>
    <p v-if="ancestors.length" class="small soft">
      Ancestors: {{ ancestors.map(({ named }) => named ?? 'not named').join(', ') }}. They take no tub, and
      stand in kin charts.
    </p>
  </v-card>
</template>

<style scoped>
.box {
  display: grid;
  gap: 10px;
  padding: 18px;
}
</style>
