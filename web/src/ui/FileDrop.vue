<script setup lang="ts">
import { useDropZone } from '@vueuse/core';
import { useTemplateRef } from 'vue';

/** Takes one file, chosen or dropped. */
defineProps<{ label: string; accept: string; loading: boolean }>();
const emit = defineEmits<{ file: [file: File] }>();
const zone = useTemplateRef<HTMLElement>('zone');
const { isOverDropZone } = useDropZone(zone, { onDrop: (files) => take(files) });
function take(files: File | File[] | null | undefined): void {
  const [file] = [files ?? []].flat();
  if (file) emit('file', file);
}
</script>

<template>
  <div ref="zone" class="zone" :class="{ over: isOverDropZone }">
    <v-file-input :label="label" :accept="accept" :loading="loading" @update:model-value="take" />
    <slot />
  </div>
</template>

<style scoped>
.zone {
  display: grid;
  gap: 8px;
  padding: 20px;
  border: 2px dashed var(--hair);
  border-radius: 12px;
}
.zone.over {
  border-color: rgb(var(--v-theme-primary));
}
</style>
