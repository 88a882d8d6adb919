<script setup lang="ts">
import type { BenchView } from '@karyotome/contract';
import { computed } from 'vue';
import { oddsWords } from '../../format/format.ts';
import { useContradictions } from '../../stores/queries.ts';
import OutcomeList from '../../ui/OutcomeList.vue';
import ContradictionCard from '../contradictions/ContradictionCard.vue';
import { fitWords, newsWords, sireTable } from './bench-words.ts';

/** The clutch as a whole: what the pair can give, how what was identified fits it, and what it says of the parents. */
const props = defineProps<{ bench: BenchView; mayBreed: boolean }>();
const SHOWN = 12;
const news = computed(() =>
  [props.bench.dam, ...props.bench.sires].flatMap((parent) =>
    parent.news.map((one) => ({ parent, words: newsWords(one), key: `${parent.id}-${one.locus}` })),
  ),
);
const sires = computed(() => sireTable(props.bench));
const { data: contradictions } = useContradictions();
const near = computed(() => {
  if (props.bench.conflicts.length === 0) return [];
  const family = new Set(
    [props.bench.dam, ...props.bench.sires, ...props.bench.hatchlings].map(({ id }) => id),
  );
  return (contradictions.value ?? []).filter(({ animals }) => animals.some(({ id }) => family.has(id)));
});
</script>

<template>
  <div class="stack">
    <v-alert
      v-for="caution in bench.cautions"
      :key="caution"
      type="warning"
      variant="tonal"
      density="compact"
      :icon="false"
      >{{ caution }}</v-alert
    >
    <p v-if="bench.leftOut.length > 0" class="small">
      Left out of the odds, since records contradict one another there: {{ bench.leftOut.join(', ') }}.
    </p>
    <v-card v-if="news.length > 0" class="box">
      <h2>What this clutch says of its parents</h2>
      <p v-for="one in news" :key="one.key">
        <router-link :to="`/animals/${one.parent.id}`">{{ one.parent.number }}</router-link> {{ one.words }}.
      </p>
    </v-card>
    <v-card v-if="sires.length > 0" class="box">
      <h2>Who sired whom</h2>
      <div class="scroll">
        <table class="figures small">
          <thead>
            <tr>
              <th scope="col">Young</th>
              <th v-for="sire in bench.sires" :key="sire.id" scope="col" class="num">{{ sire.number }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in sires" :key="row.number">
              <th scope="row">{{ row.number }}</th>
              <td v-for="(p, i) in row.odds" :key="i" class="num">{{ oddsWords(p) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </v-card>
    <v-card v-if="bench.fit" class="box">
      <h2>Against the odds</h2>
      <div class="scroll">
        <table class="figures small">
          <thead>
            <tr>
              <th scope="col">Gene</th>
              <th scope="col" class="num">Seen</th>
              <th scope="col" class="num">Expected</th>
              <th scope="col" class="num">Chance</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="gene in bench.fit.genes" :key="gene.label">
              <td>{{ gene.label }}</td>
              <td class="num">{{ gene.seen }} of {{ bench.fit.looked }}</td>
              <td class="num">{{ gene.expected.toFixed(1) }}</td>
              <td class="num">{{ oddsWords(gene.p) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="small soft">{{ fitWords(bench.fit.p) }}</p>
    </v-card>
    <ContradictionCard
      v-for="one in near"
      :key="one.locus + one.animals.map(({ id }) => id).join()"
      :contradiction="one"
      :may-breed="mayBreed"
    />
    <v-card class="box">
      <h2>What this pair can produce</h2>
      <OutcomeList :outcomes="bench.outcomes.slice(0, SHOWN)" />
      <details v-if="bench.outcomes.length > SHOWN" class="small">
        <summary>and {{ bench.outcomes.length - SHOWN }} rarer kinds</summary>
        <OutcomeList :outcomes="bench.outcomes.slice(SHOWN)" />
      </details>
    </v-card>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 10px;
  padding: 16px;
}
summary {
  min-height: 36px;
  padding: 8px 0;
  cursor: pointer;
}
</style>
