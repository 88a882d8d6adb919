<script setup lang="ts">
import type { Origin } from '@karyotome/contract';
import { QUARANTINE_PRACTICE } from '@karyotome/words';
import DayField from '../../ui/DayField.vue';
import AcquisitionFields from '../records/AcquisitionFields.vue';

/** Of an animal that came from somebody else: from whom, when, for what, and how long it is kept apart. */
defineProps<{ errorsOf: (...fields: string[]) => string[] }>();
const origin = defineModel<Origin>('origin', { required: true });
const quarantineDays = defineModel<number | null>('quarantineDays', { required: true });
</script>

<template>
  <DayField v-model="origin.on" label="Came on" :errors="errorsOf('origin.on')" />
  <v-number-input
    v-model="quarantineDays"
    label="Kept in quarantine for … days"
    control-variant="hidden"
    clearable
    :error-messages="errorsOf('quarantineDays')"
  />
  <AcquisitionFields v-model="origin" path="origin" :errors-of="errorsOf" />
  <p v-if="quarantineDays" class="wide small soft">{{ QUARANTINE_PRACTICE }}</p>
</template>
