<script setup lang="ts">
import { localDay } from '@karyotome/core';
import { farmToday } from '../format/format.ts';

/** A day, typed in the order of the reader's locale, or picked. What is typed and not a day is put back. */
const {
  label,
  errors = [],
  allowsFuture = false,
} = defineProps<{ label: string; errors?: string[]; allowsFuture?: boolean }>();
/** `YYYY-MM-DD`; null while there is none. */
const day = defineModel<string | null>({ required: true });

/** The menu opens from the whole field, which is no button: what it says of itself belongs to one. */
const MENU = {
  activatorProps: {
    'aria-haspopup': undefined,
    'aria-expanded': undefined,
    'aria-controls': undefined,
    'aria-owns': undefined,
  },
};
/** The picker speaks of days as local midnights. */
function take(picked: unknown): void {
  day.value = picked instanceof Date ? localDay(picked) : null;
}
</script>

<template>
  <v-date-input
    :model-value="day"
    :label="label"
    prepend-icon=""
    append-inner-icon="$calendar"
    :picker-props="allowsFuture ? {} : { max: farmToday() }"
    :menu-props="MENU"
    :error-messages="errors"
    @update:model-value="take"
  />
</template>
