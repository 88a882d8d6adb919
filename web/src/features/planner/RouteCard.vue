<script setup lang="ts">
import type { Route } from '@karyotome/core';
import { kinWords, stepWords, yearsWords, type NameOf } from './planner-words.ts';

/** One way to the target: its pairings in order, what to hold back from each, with which odds. */
defineProps<{ route: Route; nameOf: NameOf }>();
</script>

<template>
  <div class="route">
    <ol>
      <li v-for="(step, index) in route.steps" :key="index">
        <strong>{{ stepWords(step, route, nameOf).pair }}</strong>
        <span class="small">{{ stepWords(step, route, nameOf).keep }}</span>
        <span class="small soft">Inbreeding of the young: {{ kinWords(step.inbreeding) }}</span>
      </li>
    </ol>
    <div class="row">
      <span class="soft">{{ yearsWords(route.roughYears) }}, roughly</span>
      <v-spacer />
      <slot />
    </div>
  </div>
</template>

<style scoped>
.route {
  display: grid;
  gap: 8px;
}
ol {
  display: grid;
  gap: 8px;
  margin: 0;
  padding-left: 24px;
}
li > span {
  display: block;
}
</style>
