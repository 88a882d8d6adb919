<script setup lang="ts">
import type { ParentView } from '@karyotome/contract';
import { oddsWords } from '../../format/format.ts';

/** Ancestors with the published pedigree symbols: squares for males, circles for females. */
defineProps<{ parents: readonly ParentView[] }>();
</script>

<template>
  <ul class="tree">
    <li v-for="parent in parents" :key="parent.role + parent.id">
      <div class="node">
        <svg width="16" height="16" aria-hidden="true">
          <circle v-if="parent.role === 'dam'" cx="8" cy="8" r="6.5" />
          <rect v-else x="1.5" y="1.5" width="13" height="13" />
        </svg>
        <span>
          <router-link :to="`/animals/${parent.id}`" class="plain"
            ><strong>{{ parent.number }}</strong> {{ parent.name }}</router-link
          >
          <span v-if="parent.p < 1 - 1e-9" class="small"
            >{{ ' '
            }}{{ parent.p < 1e-9 ? 'ruled out as sire' : `candidate sire, ${oddsWords(parent.p)}` }}</span
          >
          <span class="small soft genes">{{ parent.label }}</span>
        </span>
      </div>
      <LineageTree v-if="parent.parents.length" :parents="parent.parents" />
    </li>
  </ul>
</template>

<style scoped>
.tree {
  display: grid;
  gap: 8px;
  padding: 0;
  list-style: none;
}
.tree .tree {
  margin: 8px 0 0 7px;
  padding-left: 16px;
  border-left: 1.5px solid var(--hair);
}
.node {
  display: grid;
  grid-template-columns: 18px 1fr;
  gap: 8px;
}
svg {
  margin-top: 4px;
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.5;
}
.genes {
  display: block;
}
</style>
