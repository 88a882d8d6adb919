<script setup lang="ts">
import { COLUMNS } from './columns.ts';

/** Which columns the list shows on this device; its numbers always stand there. */
const hidden = defineModel<readonly string[]>({ required: true });
function toggle(key: string): void {
  hidden.value = hidden.value.includes(key)
    ? hidden.value.filter((one) => one !== key)
    : [...hidden.value, key];
}
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: activator }">
      <v-btn v-bind="activator" variant="text">Columns…</v-btn>
    </template>
    <v-list density="compact">
      <v-list-item v-for="{ key, title } in COLUMNS.slice(1)" :key="key">
        <v-checkbox
          :model-value="!hidden.includes(key)"
          :label="title"
          density="compact"
          hide-details
          @update:model-value="toggle(key)"
        />
      </v-list-item>
    </v-list>
  </v-menu>
</template>
