<script setup lang="ts">
import { reader } from '../format/reader.ts';
import { useInUnit } from './useInUnit.ts';

/** A mass, typed in the collection's unit and kept in grams. */
defineProps<{ label: string }>();
const massG = defineModel<number | null | undefined>({ required: true });
const { symbol, shown } = useInUnit(massG, () => reader().massUnit);
</script>

<template>
  <v-number-input
    v-model="shown"
    :label="`${label}, ${symbol}`"
    :precision="null"
    :min="0"
    control-variant="hidden"
  />
</template>
