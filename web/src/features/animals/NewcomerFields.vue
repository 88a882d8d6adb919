<script setup lang="ts">
import { ACQUISITIONS, type Origin } from '@karyotome/contract';
import { ACQUISITION_WORDS, capital, QUARANTINE_PRACTICE } from '@karyotome/words';
import CurrencyField from '../../ui/CurrencyField.vue';
import DayField from '../../ui/DayField.vue';

/** Of an animal that came from somebody else: from whom, when, for what, and how long it is kept apart. */
defineProps<{ errorsOf: (...fields: string[]) => string[] }>();
const origin = defineModel<Origin>('origin', { required: true });
const quarantineDays = defineModel<number | null>('quarantineDays', { required: true });
const ways = ACQUISITIONS.map((value) => ({ value, title: capital(ACQUISITION_WORDS[value]) }));
</script>

<template>
  <v-text-field v-model="origin.from" label="From whom" :error-messages="errorsOf('origin.from')" />
  <v-select v-model="origin.how" label="How" :items="ways" />
  <DayField v-model="origin.on" label="Came on" :errors="errorsOf('origin.on')" />
  <v-number-input
    v-model="quarantineDays"
    label="Kept in quarantine for … days"
    control-variant="hidden"
    clearable
    :error-messages="errorsOf('quarantineDays')"
  />
  <v-number-input
    v-model="origin.price"
    label="Price, if any"
    :precision="null"
    control-variant="hidden"
    clearable
    :error-messages="errorsOf('origin.price')"
  />
  <CurrencyField v-model="origin.currency!" :errors="errorsOf('origin.currency')" />
  <v-text-field
    v-model="origin.papers"
    label="Papers that came with it, and where they are"
    class="wide"
    :error-messages="errorsOf('origin.papers')"
  />
  <p v-if="quarantineDays" class="wide small soft">{{ QUARANTINE_PRACTICE }}</p>
</template>
