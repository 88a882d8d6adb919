<script setup lang="ts">
import type { Candidate, Ranking, VisibleOutcome } from '@karyotome/core';
import { computed } from 'vue';
import { oddsWords } from '../../format/format.ts';
import SureText from '../../ui/SureText.vue';
import { pairChance } from './bench-words.ts';

/** What one can be: by the pair alone, before it was looked at, and with what was seen. */
const props = defineProps<{
  ranking: Ranking;
  outcomes: readonly VisibleOutcome[];
  mayChoose: boolean;
}>();
defineEmits<{ choose: [Candidate] }>();
/** Enough to choose from at a glance; the rest a touch away. */
const FEW = 7;
const FAINT = 1e-4;
const few = computed(() => props.ranking.candidates.slice(0, FEW));
const others = computed(() => props.ranking.candidates.slice(FEW).filter(({ p }) => p >= FAINT));
const rest = computed(
  () => props.ranking.candidates.length - few.value.length - others.value.length + props.ranking.rarer,
);
</script>

<template>
  <div>
    <ul class="genes" aria-label="Gene by gene">
      <li v-for="gene in ranking.genes" :key="gene.locus + gene.phenotype" class="gene small">
        <SureText :text="gene.label" :p="Math.min(gene.p - 1e-6, 0.999)" :refuted="gene.p < 0.005" />
        <span class="num">{{ oddsWords(gene.p) }}</span>
        <span class="level" aria-hidden="true"><i :style="{ width: `${gene.p * 100}%` }" /></span>
      </li>
    </ul>
    <div class="head small soft" aria-hidden="true">
      <span>Can be</span><span class="num">The pair</span><span class="num">Before</span
      ><span class="num">Now</span>
    </div>
    <component
      :is="part.wrap"
      v-for="part in [
        { wrap: 'div', list: few },
        { wrap: 'details', list: others },
      ]"
      :key="part.wrap"
    >
      <summary v-if="part.wrap === 'details' && part.list.length > 0" class="small">
        {{ part.list.length }} less likely
      </summary>
      <button
        v-for="one in part.list"
        :key="one.label"
        type="button"
        class="line"
        :aria-label="`${one.label}: ${oddsWords(one.p)} now, ${oddsWords(one.pBefore)} before it was looked at`"
        :disabled="!mayChoose"
        @click="$emit('choose', one)"
      >
        <span class="bar" :style="{ width: `${Math.max(0.6, one.p * 100)}%` }" />
        <span class="name">{{ one.label }}</span>
        <span class="num small soft">{{ oddsWords(pairChance(outcomes, one.phenotype)) }}</span>
        <span class="num small">{{ oddsWords(one.pBefore) }}</span>
        <span class="num now">{{ oddsWords(one.p) }}</span>
      </button>
    </component>
    <p v-if="ranking.least > 0" class="small soft rest">
      Kinds rarer than {{ oddsWords(ranking.least) }} are left out of the odds.
    </p>
    <p v-if="rest > 0" class="small soft rest">and {{ rest }} more kinds, each less likely</p>
  </div>
</template>

<style scoped>
.genes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 6px 14px;
  margin: 0 0 12px;
  padding: 0 10px;
  list-style: none;
}
.gene {
  display: grid;
  grid-template-columns: 1fr auto;
}
.level {
  grid-column: 1 / -1;
  height: 5px;
  border-radius: 3px;
  background: var(--hair);
}
.level i {
  display: block;
  height: 100%;
  border-radius: 3px;
  background: rgb(var(--v-theme-secondary));
  transition: width 120ms;
}
.head,
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 62px 62px 72px;
  align-items: center;
  gap: 6px;
  width: 100%;
  padding: 2px 10px;
}
.line {
  position: relative;
  min-height: 44px;
  border: 0;
  border-radius: 8px;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.line:disabled {
  cursor: default;
}
.line:hover,
.line:focus-visible {
  outline: 2px solid rgb(var(--v-theme-primary));
  outline-offset: -2px;
}
.bar {
  position: absolute;
  inset: 3px auto 3px 0;
  border-radius: 8px;
  background: color-mix(in srgb, rgb(var(--v-theme-secondary)) 18%, transparent);
  transition: width 120ms;
}
.name,
.line .num {
  position: relative;
}
.now {
  font-weight: 700;
}
summary {
  min-height: 36px;
  padding: 8px 10px;
  cursor: pointer;
}
.rest {
  padding: 4px 10px;
}
</style>
