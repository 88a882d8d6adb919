<script setup lang="ts">
import { daysBetween } from '@karyotome/core';
import { computed } from 'vue';
import { dayWords, massWords } from '../format/format.ts';

/** A weight curve small enough for a card, without the chart library. */
const props = defineProps<{ weights: readonly { on: string; massG: number }[] }>();
const W = 760;
const H = 150;
const first = computed(() => props.weights[0]!);
const last = computed(() => props.weights.at(-1)!);
const points = computed(() => {
  const span = Math.max(1, daysBetween(first.value.on, last.value.on));
  const top = Math.max(...props.weights.map((weight) => weight.massG));
  return props.weights.map(({ on, massG }) => ({
    x: 6 + (daysBetween(first.value.on, on) / span) * (W - 12),
    y: H - 6 - (massG / top) * (H - 18),
  }));
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    role="img"
    :aria-label="`From ${massWords(first.massG)} on ${dayWords(first.on)} to ${massWords(last.massG)} on ${dayWords(last.on)}`"
  >
    <line x1="0" :x2="W" :y1="H - 6" :y2="H - 6" class="base" />
    <polyline :points="points.map((p) => `${p.x},${p.y}`).join(' ')" />
    <circle v-for="(point, index) in points" :key="index" :cx="point.x" :cy="point.y" r="3" />
  </svg>
  <p class="small soft">
    {{ massWords(first.massG) }} on {{ dayWords(first.on) }}, {{ massWords(last.massG) }} on
    {{ dayWords(last.on) }}
  </p>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
}
polyline {
  fill: none;
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 2.5;
}
circle {
  fill: rgb(var(--v-theme-primary));
}
.base {
  stroke: var(--hair);
}
</style>
