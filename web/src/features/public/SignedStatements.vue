<script setup lang="ts">
import type { StatementLine } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords } from '../../format/format.ts';

const { statements } = defineProps<{
  slug: string;
  collection: string;
  statements: readonly StatementLine[];
}>();
const keys = computed(() => [...new Set(statements.map(({ key }) => key))]);
</script>

<template>
  <section>
    <h2>Signed statements</h2>
    <p class="small soft">
      Each holds what is claimed and the records that it follows from, signed by the breeder. Anybody can
      <router-link to="/verify">verify</router-link> it in a browser, offline too.
    </p>
    <ol class="list">
      <li v-for="line in statements" :key="line.statement" class="line">
        <span
          >Statement {{ line.statement }}, <span class="num">{{ dayWords(line.asOf) }}</span></span
        >
        <a :href="api.publishedStatementUrl(slug, line.statement)" download>Download</a>
        <p v-for="change in line.changes" :key="change.from + change.to" class="small soft change">
          {{ change.from }} became {{ change.to }}. {{ change.because }}
        </p>
      </li>
    </ol>
    <p class="small soft key">Signed by {{ collection }} with the key {{ keys.join(' and ') }}</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.list {
  padding: 0;
  list-style: none;
}
.line {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  padding: 8px 0;
  border-top: 1px solid var(--hair);
}
.key {
  overflow-wrap: anywhere;
}
.change {
  grid-column: 1 / -1;
}
</style>
