<script setup lang="ts">
import type { PlannerView } from '@karyotome/contract';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import OwnGenesField from '../../ui/OwnGenesField.vue';
import type { ParentChoice } from './planner-draft.ts';

/** A parent of a planned pair: an animal of one's own, with all that is known of it, or genes typed in. */
defineProps<{
  title: string;
  sex: 'female' | 'male';
  animals: PlannerView['animals'];
}>();
const choice = defineModel<ParentChoice>({ required: true });
</script>

<template>
  <div class="parent">
    <v-btn-toggle v-model="choice.kind" :aria-label="`${title}: from where`">
      <v-btn value="owned">{{ title }} of mine</v-btn>
      <v-btn value="typed">Typed genes</v-btn>
    </v-btn-toggle>
    <AnimalPicker
      v-if="choice.kind === 'owned'"
      v-model="choice.animalId"
      :label="title"
      :among="animals"
      :sex="sex"
      clearable
    />
    <OwnGenesField v-else v-model="choice.genes" :label="`${title}, genes`" />
  </div>
</template>

<style scoped>
.parent {
  display: grid;
  gap: 12px;
}
</style>
