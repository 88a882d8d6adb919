<script setup lang="ts">
import type { PublicKin } from '@karyotome/contract';
import { oddsWords } from '../../format/format.ts';

defineProps<{ kin: readonly PublicKin[] }>();
</script>

<template>
  <ul class="tree">
    <li v-for="parent in kin" :key="parent.role + parent.number">
      <span class="soft small"
        >{{ parent.role
        }}<template v-if="parent.p < 1 - 1e-9"> candidate, {{ oddsWords(parent.p) }}</template></span
      >
      {{ ' ' }}<strong>{{ parent.number }}</strong> {{ parent.label }}
      <PublicLineage v-if="parent.parents.length" :kin="parent.parents" />
    </li>
  </ul>
</template>

<style scoped>
.tree {
  padding: 0;
  list-style: none;
}
.tree .tree {
  margin-left: 8px;
  padding-left: 14px;
  border-left: 1.5px solid var(--hair);
}
</style>
