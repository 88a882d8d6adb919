<script setup lang="ts">
/** A currency by its code (ISO 4217), as this browser knows them. */
defineProps<{ errors?: string[] }>();
const currency = defineModel<string | null>({ required: true });
const NAMES = new Intl.DisplayNames('en', { type: 'currency' });
const ITEMS = Intl.supportedValuesOf('currency').map((code) => ({
  value: code,
  title: `${code} ${NAMES.of(code) ?? ''}`,
}));
</script>

<template>
  <v-autocomplete
    v-model="currency"
    label="Currency"
    :items="ITEMS"
    :error-messages="errors ?? []"
    auto-select-first
  />
</template>
