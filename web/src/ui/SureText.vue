<script setup lang="ts">
import { computed } from 'vue';
import { oddsWords } from '../format/format.ts';

/**
 * How sure, in type: certain is plain, probable is underdotted, possible is in brackets, refuted is struck out. The
 * percentage is one touch away.
 */
const props = defineProps<{ text: string; p: number; refuted?: boolean; fraction?: boolean }>();
const kind = computed(() => {
  if (props.refuted) return 'refuted';
  if (props.p >= 1 - 1e-9 || props.fraction) return 'certain';
  return props.p > 0.5 ? 'probable' : 'possible';
});
</script>

<template>
  <span
    class="sure"
    :class="kind"
    :title="refuted ? 'Contradicted by the records' : oddsWords(p)"
    tabindex="0"
  >
    <template v-if="kind === 'possible'">(</template>{{ text
    }}<template v-if="kind === 'possible'">)</template>
  </span>
</template>

<style scoped>
.probable {
  text-decoration: underline dotted 2px;
  text-underline-offset: 4px;
}
.refuted {
  text-decoration: line-through;
}
</style>
