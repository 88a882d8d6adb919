<script setup lang="ts">
import { combinationLabel, parseGenes } from '@karyotome/core';
import { computed } from 'vue';
import { useCatalogue } from '../../stores/useCatalogue.ts';

/** The same genes by the names of combinations, where the trade has any. */
const props = defineProps<{ label: string }>();
const catalogue = useCatalogue();
const named = computed(() => {
  const reading = parseGenes(props.label, catalogue.value);
  return reading.unknown.length > 0 ? null : combinationLabel(reading, catalogue.value);
});
</script>

<template>
  <p v-if="named" class="small soft">also called {{ named }}</p>
</template>
