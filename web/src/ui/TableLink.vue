<script setup lang="ts">
import { api } from '../api/resources.ts';
import type { ListName } from '../api/export-resources.ts';

/** A list as a CSV table, as it is filtered. */
defineProps<{ list: ListName; query?: Readonly<Record<string, string>> }>();
</script>

<template>
  <v-btn variant="text" :href="api.listTableUrl(list, query ?? {})" download class="no-print"
    >Download table</v-btn
  >
</template>
