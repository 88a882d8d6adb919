<script setup lang="ts">
import type { AnimalSummary } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { useGrowth } from '../../stores/queries.ts';
import GrowthChart from './GrowthChart.vue';

/** Growth laid over one another: of an animal with its clutch-mates or its season, or of several that were chosen. */
const props = defineProps<{
  /** The one that is meant, with its clutch. */
  animal?: Pick<AnimalSummary, 'id' | 'number'>;
  clutch?: { id: string; name: string };
  /** Of those that were chosen. */
  ids?: readonly string[];
}>();
const emit = defineEmits<{ close: [] }>();
const beside = ref<'clutch' | 'season'>('clutch');
const query = computed((): Record<string, string> => {
  if (props.ids) return { id: props.ids.join(',') };
  if (!props.clutch) return { id: props.animal?.id ?? '' };
  return beside.value === 'clutch' ? { clutch: props.clutch.id } : { seasonOf: props.clutch.id };
});
const { data } = useGrowth(query);
</script>

<template>
  <v-dialog :model-value="true" max-width="940" @update:model-value="emit('close')">
    <v-card :title="animal ? `Growth of ${animal.number}` : 'Growth'">
      <v-card-text class="stack">
        <v-btn-toggle v-if="clutch" v-model="beside" mandatory density="compact" aria-label="Beside whom">
          <v-btn value="clutch">Clutch {{ clutch.name }}</v-btn>
          <v-btn value="season">All of its season</v-btn>
        </v-btn-toggle>
        <v-progress-linear v-if="!data" indeterminate aria-label="Loading" />
        <p v-else-if="data.length === 0">
          None of them was weighed yet, or their day of hatching is not recorded.
        </p>
        <GrowthChart v-else :lines="data" :meant="animal?.id" />
      </v-card-text>
      <v-card-actions><v-btn @click="emit('close')">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>
