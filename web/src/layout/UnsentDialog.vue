<script setup lang="ts">
import { computed } from 'vue';
import { useRoundQueue } from '../offline/useRoundQueue.ts';

/** Before signing out: what was entered here and is not with the server yet. */
defineEmits<{ stay: []; leave: [] }>();
const queue = useRoundQueue();
const shown = computed(() => queue.entries.slice(0, 6));
const count = computed(() => {
  const pictures = queue.entries.filter(({ photo }) => photo !== null).length;
  const entries = queue.entries.length - pictures;
  return [
    ...(entries > 0 ? [entries === 1 ? '1 entry' : `${entries} entries`] : []),
    ...(pictures > 0 ? [pictures === 1 ? '1 photograph' : `${pictures} photographs`] : []),
  ].join(' and ');
});
</script>

<template>
  <v-dialog :model-value="true" max-width="520" persistent aria-labelledby="unsent-title">
    <v-card class="box">
      <h2 id="unsent-title">Not sent yet: {{ count }}</h2>
      <p>
        It is on this device only. Signing out takes away everything of yours that this device holds, this
        too. Stay signed in until it is sent, or sign out and lose it.
      </p>
      <ul>
        <li v-for="entry in shown" :key="entry.key">{{ entry.number }}: {{ entry.text }}</li>
        <li v-if="queue.entries.length > shown.length">and {{ queue.entries.length - shown.length }} more</li>
      </ul>
      <div class="buttons">
        <v-btn color="primary" @click="$emit('stay')">Stay signed in</v-btn>
        <v-btn color="error" variant="outlined" @click="$emit('leave')">Sign out and lose this</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.box {
  display: grid;
  gap: 16px;
  padding: 20px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 12px;
}
.buttons > * {
  flex: 1 1 200px;
}
</style>
