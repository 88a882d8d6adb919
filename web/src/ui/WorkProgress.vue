<script setup lang="ts">
import type { JobProgress } from '@karyotome/contract';
import { computed } from 'vue';

/** How far long work is, and the way out of it. */
const props = defineProps<{ progress: JobProgress | null }>();
defineEmits<{ cancel: [] }>();
const STEPS: Readonly<Record<JobProgress['step'], string>> = {
  reading: 'Reading the file',
  checking: 'Checking the rows',
  writing: 'Writing',
};
const share = computed(() => {
  const { done = 0, of = 0 } = props.progress ?? {};
  return of > 0 ? (100 * done) / of : null;
});
</script>

<template>
  <div class="work" role="status">
    <v-progress-linear
      :model-value="share ?? 0"
      :indeterminate="share === null"
      height="8"
      :aria-label="progress ? STEPS[progress.step] : 'Sending'"
    />
    <div class="row">
      <span class="small">
        {{ progress ? STEPS[progress.step] : 'Sending the file'
        }}<template v-if="progress && progress.of > 0">: {{ progress.done }} of {{ progress.of }}</template>
      </span>
      <v-spacer />
      <v-btn size="small" variant="outlined" @click="$emit('cancel')">Cancel</v-btn>
    </div>
  </div>
</template>

<style scoped>
.work {
  display: grid;
  gap: 6px;
}
</style>
