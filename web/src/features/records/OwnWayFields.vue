<script setup lang="ts">
import type { RecordBodies } from '@karyotome/contract';
import { computed } from 'vue';
import { useFeeding } from '../../stores/queries.ts';
import MassField from '../../ui/MassField.vue';

/** What one animal has of its own; what is left empty is as the rules say. */
defineProps<{ errorsOf: (...fields: string[]) => string[] }>();
const body = defineModel<RecordBodies['own-way']>({ required: true });
const { data } = useFeeding();
const plans = computed(() => (data.value?.plans ?? []).map(({ id, name }) => ({ value: id, title: name })));
/** Shares are said in percent. */
const percent = computed({
  get: () => (body.value.share == null ? null : Math.round(body.value.share * 1000) / 10),
  set: (value: number | null) => {
    body.value.share = value === null ? null : value / 100;
  },
});
</script>

<template>
  <v-select v-model="body.planId" label="Feeding plan" :items="plans" clearable class="wide" />
  <v-number-input
    v-model="body.everyDays"
    label="Fed every … days"
    control-variant="hidden"
    clearable
    :error-messages="errorsOf('body.everyDays')"
  />
  <v-number-input
    v-model="percent"
    label="Prey, % of its weight"
    :precision="1"
    control-variant="hidden"
    clearable
    :error-messages="errorsOf('body.share')"
  />
  <v-select
    v-model="body.species"
    label="Prey"
    clearable
    :items="[
      { value: 'rat', title: 'Rats' },
      { value: 'mouse', title: 'Mice' },
    ]"
  />
  <MassField
    v-model="body.stayUntilG"
    label="Stays in its tub up to"
    clearable
    :error-messages="errorsOf('body.stayUntilG')"
  />
  <p class="wide small soft">
    What is left empty is as the rules say. The newest of these records counts whole.
  </p>
</template>
