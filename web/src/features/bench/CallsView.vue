<script setup lang="ts">
import { shareOf, type Share } from '@karyotome/core';
import { computed } from 'vue';
import { useCalls } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';
import CallsChart from './CallsChart.vue';
import { surenessPoints } from './calls-option.ts';

/** How calls proved later: by how sure they were, by gene and by person. */
const { data, status, error, refetch } = useCalls();
const points = computed(() => surenessPoints(data.value?.bySure ?? []));
const percent = (p: number): string => `${Math.round(p * 100)}%`;
const words = (share: Share): string =>
  share.share === null
    ? 'none settled yet'
    : `${share.count} of ${share.of}, ${percent(share.share)} (${percent(share.low)} to ${percent(share.high)})`;
const people = computed(() => [...new Set((data.value?.byGene ?? []).map(({ by }) => by))]);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>How calls proved</h1>
      <v-btn variant="outlined" to="/bench">To the bench</v-btn>
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.byGene.length === 0"
      empty-title="Nothing has proved itself yet"
      empty-text="A call counts once it is settled: by a later look of the same animal that was certain, two weeks or more after, or by the animal’s own young."
      @retry="refetch()"
    >
      <div v-if="data" class="columns">
        <v-card class="box">
          <h2>Sure, and right</h2>
          <CallsChart :points="points" />
          <table class="figures small">
            <thead>
              <tr>
                <th scope="col">Called</th>
                <th scope="col" class="num">Promises</th>
                <th scope="col">Proved right</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="point in points" :key="point.sure">
                <th scope="row">{{ point.sure }}</th>
                <td class="num">{{ percent(point.promised) }}</td>
                <td>{{ words(point.proved) }}</td>
              </tr>
            </tbody>
          </table>
          <p class="small soft">
            In brackets and as the bar: the 95% interval (Wilson). On the dashed line a word keeps what it
            promises; below it, calls were bolder than they proved.
          </p>
        </v-card>
        <v-card class="box">
          <h2>Gene by gene</h2>
          <template v-for="person in people" :key="person">
            <h3>{{ person }}</h3>
            <div class="scroll">
              <table class="figures small">
                <tbody>
                  <tr v-for="gene in data.byGene.filter(({ by }) => by === person)" :key="gene.phenotype">
                    <th scope="row">{{ gene.label }}</th>
                    <td>{{ words(shareOf(gene.right, gene.settled)) }}</td>
                    <td class="soft">{{ gene.settled >= 10 ? 'sets how sure is proposed' : '' }}</td>
                  </tr>
                </tbody>
              </table>
            </div>
          </template>
          <p class="small soft">
            With ten or more settled calls of a gene, they set how sure is proposed for the next one. A gene
            that was there and not named counts as a wrong call of it.
          </p>
        </v-card>
      </div>
    </StateBlock>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  align-items: start;
  gap: 16px;
}
.box {
  display: grid;
  gap: 12px;
  padding: 16px;
}
</style>
