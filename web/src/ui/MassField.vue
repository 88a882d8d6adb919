<script setup lang="ts">
import { computed } from 'vue';
import { reader } from '../format/reader.ts';

/** A mass, typed in the collection's unit and kept in grams. */
defineProps<{ label: string }>();
const massG = defineModel<number | null | undefined>({ required: true });
const unit = computed(() => reader().massUnit);
const shown = computed({
  get: () => (massG.value == null ? null : unit.value.fromGrams(massG.value)),
  set: (value: number | null) => (massG.value = value === null ? null : unit.value.toGrams(value)),
});
</script>

<template>
  <v-number-input
    v-model="shown"
    :label="`${label}, ${unit.symbol}`"
    :precision="null"
    :min="0"
    control-variant="hidden"
  />
</template>
