<script setup lang="ts">
import { mdiHelpCircleOutline } from '@mdi/js';

/** Opens the rule and the records behind any derived thing. */
defineProps<{
  title: string;
  label?: string;
  /** The sign alone, in a line of text. */
  isSmall?: boolean;
}>();
</script>

<template>
  <v-menu :close-on-content-click="false" max-width="460" location="bottom end">
    <template #activator="{ props: activator }">
      <v-btn
        v-if="isSmall"
        v-bind="activator"
        :icon="mdiHelpCircleOutline"
        size="x-small"
        class="soft"
        variant="text"
        :aria-label="`Why: ${title}`"
        title="Why"
      />
      <v-btn
        v-else
        v-bind="activator"
        size="small"
        variant="text"
        :prepend-icon="mdiHelpCircleOutline"
        :aria-label="`Why: ${title}`"
      >
        {{ label ?? 'Why' }}
      </v-btn>
    </template>
    <v-card class="why">
      <h3>{{ title }}</h3>
      <slot />
    </v-card>
  </v-menu>
</template>

<style scoped>
.why {
  display: grid;
  gap: 12px;
  max-height: min(70vh, 640px);
  padding: 16px;
  overflow-y: auto;
}
</style>
