<script setup lang="ts">
import { LEAST_PASSWORD } from '@karyotome/contract';

/** A password that is chosen. It is kept in no draft. */
defineProps<{ label: string; errors: string[]; more?: string }>();
const password = defineModel<string>({ required: true });
</script>

<template>
  <v-text-field
    v-model="password"
    :label="label"
    type="password"
    autocomplete="new-password"
    :hint="`At least ${LEAST_PASSWORD} characters; several words are easy to keep.${more ? ` ${more}` : ''}`"
    persistent-hint
    :error-messages="errors"
  />
</template>
