<script setup lang="ts">
import { ACQUISITIONS, type OriginBodies } from '@karyotome/contract';
import { ACQUISITION_WORDS, capital } from '@karyotome/words';
import CurrencyField from '../../ui/CurrencyField.vue';

/** From whom an animal came, how, for what, and with which papers. */
const { errorsOf, path } = defineProps<{
  errorsOf: (...fields: string[]) => string[];
  /** Where these fields stand in what is sent. */
  path: string;
}>();
const body = defineModel<OriginBodies['acquisition']>({ required: true });
const ways = ACQUISITIONS.map((value) => ({ value, title: capital(ACQUISITION_WORDS[value]) }));
</script>

<template>
  <v-text-field v-model="body.from" label="From whom" :error-messages="errorsOf(`${path}.from`)" />
  <v-select v-model="body.how" label="How" :items="ways" />
  <v-number-input
    v-model="body.price"
    label="Price, if any"
    :precision="null"
    control-variant="hidden"
    clearable
    :error-messages="errorsOf(`${path}.price`)"
  />
  <CurrencyField v-model="body.currency!" :errors="errorsOf(`${path}.currency`)" />
  <v-textarea
    v-model="body.papers"
    label="Papers that came with it, and where they are"
    rows="2"
    class="wide"
    :error-messages="errorsOf(`${path}.papers`)"
  />
</template>
