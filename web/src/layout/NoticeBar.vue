<script setup lang="ts">
import { ref } from 'vue';
import { useNotices } from '../stores/notices.ts';

const notices = useNotices();
const undoing = ref(false);
async function undo(): Promise<void> {
  const act = notices.current?.undo;
  if (!act) return;
  undoing.value = true;
  try {
    await act();
    notices.clear();
  } finally {
    undoing.value = false;
  }
}
</script>

<template>
  <v-snackbar
    :key="notices.turn"
    :model-value="notices.current !== null"
    :color="notices.current?.isError ? 'error' : 'primary'"
    :timeout="notices.current?.isError ? 12000 : 7000"
    location="bottom"
    role="status"
    @update:model-value="(open: boolean) => !open && notices.clear()"
  >
    {{ notices.current?.text }}
    <template #actions>
      <v-btn v-if="notices.current?.undo" :loading="undoing" variant="tonal" @click="undo">Undo</v-btn>
      <v-btn variant="text" @click="notices.clear()">Close</v-btn>
    </template>
  </v-snackbar>
</template>
