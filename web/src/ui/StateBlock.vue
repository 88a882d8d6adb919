<script setup lang="ts">
/** Loading, failed or empty: what to show instead of the content, and what to do first. */
defineProps<{
  status: 'pending' | 'success' | 'error';
  error?: Error | null;
  isEmpty?: boolean;
  emptyTitle?: string;
  emptyText?: string;
}>();
defineEmits<{ retry: [] }>();
</script>

<template>
  <div v-if="status === 'pending'" class="state" role="status">
    <v-progress-linear indeterminate aria-label="Loading" />
  </div>
  <v-alert v-else-if="status === 'error'" type="error" variant="tonal" :icon="false">
    {{ error?.message }}
    <template #append><v-btn variant="text" @click="$emit('retry')">Try again</v-btn></template>
  </v-alert>
  <v-card v-else-if="isEmpty" class="empty">
    <h2>{{ emptyTitle }}</h2>
    <p>{{ emptyText }}</p>
    <div class="row"><slot name="first" /></div>
  </v-card>
  <slot v-else />
</template>

<style scoped>
.state {
  padding: 40px 0;
}
.empty {
  display: grid;
  gap: 12px;
  padding: 28px;
  max-width: 640px;
}
</style>
