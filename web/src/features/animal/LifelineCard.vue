<script setup lang="ts">
import type { AnimalView } from '@karyotome/contract';
import { computed, defineAsyncComponent, ref } from 'vue';

/** The lifeline, with the way to lay its growth over that of others. */
const props = defineProps<{ animal: AnimalView }>();
defineEmits<{ open: [recordId: string] }>();
// The page stands before its drawings are fetched.
const Lifeline = defineAsyncComponent(() => import('./LifelineChart.vue'));
const GrowthDialog = defineAsyncComponent(() => import('../growth/GrowthDialog.vue'));
const isGrowthShown = ref(false);
const hasLifeline = computed(() =>
  props.animal.records.some(({ kind }) => kind === 'weight' || kind === 'feeding'),
);
</script>

<template>
  <v-card class="box" :class="{ drawn: hasLifeline }">
    <div class="row">
      <h2>Lifeline</h2>
      <v-spacer />
      <v-btn v-if="animal.clutch && hasLifeline" size="small" variant="text" @click="isGrowthShown = true"
        >Beside its clutch…</v-btn
      >
    </div>
    <Lifeline :animal="animal" @open="$emit('open', $event)" />
    <GrowthDialog
      v-if="isGrowthShown && animal.clutch"
      :animal="animal"
      :clutch="animal.clutch"
      @close="isGrowthShown = false"
    />
  </v-card>
</template>

<style scoped>
.drawn {
  min-height: 432px;
}
</style>
