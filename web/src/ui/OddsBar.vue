<script setup lang="ts">
import { oddsWords } from '@karyotome/words';

/** A probability as a number and as a bar, as two cells of a row. */
defineProps<{ p: number }>();
</script>

<template>
  <span class="share num">{{ oddsWords(p) }}</span>
  <span class="bar" aria-hidden="true"><i :style="{ width: `${p * 100}%` }" /></span>
</template>

<style scoped>
.share {
  font-weight: 640;
}
.bar {
  height: 8px;
  border: 1px solid var(--hair);
}
.bar i {
  display: block;
  height: 100%;
  background: rgb(var(--v-theme-secondary));
}
</style>
