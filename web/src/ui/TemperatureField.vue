<script setup lang="ts">
import { computed } from 'vue';
import { reader } from '../format/reader.ts';

/** A temperature, typed in the collection's unit and kept in degrees Celsius. */
defineProps<{ label: string }>();
const celsius = defineModel<number | null | undefined>({ required: true });
const unit = computed(() => reader().temperatureUnit);
const shown = computed({
  get: () => (celsius.value == null ? null : unit.value.fromCelsius(celsius.value)),
  set: (value: number | null) => (celsius.value = value === null ? null : unit.value.toCelsius(value)),
});
</script>

<template>
  <v-number-input
    v-model="shown"
    :label="`${label}, ${unit.symbol}`"
    :precision="null"
    :step="0.1"
    control-variant="hidden"
  />
</template>
