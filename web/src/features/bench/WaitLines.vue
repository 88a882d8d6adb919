<script setup lang="ts">
import type { HatchlingView } from '@karyotome/contract';
import { computed } from 'vue';
import { useAnimalWaits } from '../../stores/queries.ts';
import { waitWords } from '../showcase/wait-words.ts';

/** Who waits for the young of this clutch, as they are identified. */
const props = defineProps<{ clutchId: string; hatchlings: readonly HatchlingView[] }>();
const { data } = useAnimalWaits(() => props.clutchId);
const lines = computed(() =>
  props.hatchlings.flatMap(({ id, number }) => {
    const words = waitWords(data.value?.find(({ animalId }) => animalId === id));
    return words === null ? [] : [{ id, text: `${number} ${words}` }];
  }),
);
</script>

<template>
  <p v-if="lines.length" class="small lines">
    <span v-for="line in lines" :key="line.id">{{ line.text }}</span>
  </p>
</template>

<style scoped>
.lines {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  margin-bottom: 10px;
}
</style>
