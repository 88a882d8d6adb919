<script setup lang="ts">
import { farmToday } from '../format/format.ts';

/** A day, typed or picked; today at the latest. */
defineProps<{ label: string; errors?: string[] }>();
const day = defineModel<string | null>({ required: true });
</script>

<template>
  <v-text-field
    :model-value="day ?? ''"
    :label="label"
    type="date"
    :max="farmToday()"
    :error-messages="errors ?? []"
    @update:model-value="(value: string) => (day = value || null)"
  />
</template>
