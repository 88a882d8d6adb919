<script setup lang="ts">
import { reader } from '../format/reader.ts';
import { useInUnit } from './useInUnit.ts';

/** A temperature, typed in the collection's unit and kept in degrees Celsius. */
defineProps<{ label: string }>();
const celsius = defineModel<number | null | undefined>({ required: true });
const { symbol, shown } = useInUnit(celsius, () => reader().temperatureUnit);
</script>

<template>
  <v-number-input
    v-model="shown"
    :label="`${label}, ${symbol}`"
    :precision="null"
    :step="0.1"
    control-variant="hidden"
  />
</template>
