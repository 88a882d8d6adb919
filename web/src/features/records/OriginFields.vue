<script setup lang="ts">
import DayField from '../../ui/DayField.vue';
import AcquisitionFields from './AcquisitionFields.vue';
import type { OriginRecord } from './record-groups.ts';

/** Where an animal comes from, and to or from whom it is lent. */
defineProps<{ errorsOf: (...fields: string[]) => string[] }>();
const record = defineModel<OriginRecord>({ required: true });
</script>

<template>
  <template v-if="record.kind === 'acquisition'">
    <AcquisitionFields v-model="record.body" path="body" :errors-of="errorsOf" />
    <p class="wide small soft">
      Its breeder’s signed statement, if there is one, is taken in under Animals: then its lineage counts.
    </p>
  </template>
  <template v-else-if="record.kind === 'loan'">
    <v-btn-toggle v-model="record.body.direction" class="wide" aria-label="Lent or borrowed">
      <v-btn value="out">Lent to somebody</v-btn>
      <v-btn value="in">On loan from somebody</v-btn>
    </v-btn-toggle>
    <v-text-field
      v-model="record.body.partner"
      :label="record.body.direction === 'out' ? 'To whom' : 'From whom'"
      :error-messages="errorsOf('body.partner')"
    />
    <DayField
      v-model="record.body.until"
      label="Until, if agreed"
      allows-future
      :errors="errorsOf('body.until')"
    />
    <v-textarea
      v-model="record.body.terms"
      label="Terms"
      rows="2"
      class="wide"
      :error-messages="errorsOf('body.terms')"
    />
    <p v-if="record.body.direction === 'out'" class="wide small soft">
      While it is away it has no tasks and no round. Its tub stays its own until it is moved.
    </p>
    <p v-else class="wide small soft">Keep it in quarantine first, and agree in writing who bears what.</p>
  </template>
  <v-text-field
    v-else-if="record.kind === 'loan-end'"
    v-model="record.body.remark"
    label="Remark, if any"
    class="wide"
    :error-messages="errorsOf('body.remark')"
  />
</template>
