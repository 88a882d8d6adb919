<script setup lang="ts">
import { useCopy } from '../stores/useCopy.ts';

/** Something secret that is shown once, to be copied. The slot says what to do with it. */
defineProps<{ secret: string; whom: string; copied: string }>();
defineEmits<{ done: [] }>();
const copy = useCopy();
</script>

<template>
  <v-card class="once">
    <p>
      <strong>For {{ whom }}.</strong> <slot />
    </p>
    <code class="small secret">{{ secret }}</code>
    <div class="row">
      <v-btn variant="outlined" @click="copy(secret, copied)">Copy</v-btn>
      <v-btn variant="text" @click="$emit('done')">Done</v-btn>
    </div>
  </v-card>
</template>

<style scoped>
.once {
  display: grid;
  gap: 8px;
  padding: 16px;
}
.secret {
  overflow-wrap: anywhere;
}
</style>
