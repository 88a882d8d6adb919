<script setup lang="ts">
import type { SaleLine } from '@karyotome/contract';
import { computed } from 'vue';
import { moneyWords } from '../../format/format.ts';
import { seasonTotals } from './season-totals.ts';

/** What became of each season's animals, and what they brought. */
const props = defineProps<{ lines: readonly SaleLine[] }>();
const totals = computed(() => seasonTotals(props.lines));
</script>

<template>
  <v-card v-if="totals.length" class="totals">
    <h2>By season</h2>
    <table class="figures">
      <thead>
        <tr>
          <th scope="col">Season</th>
          <th scope="col" class="num">Animals</th>
          <th scope="col" class="num">Held back</th>
          <th scope="col" class="num">For sale</th>
          <th scope="col" class="num">Reserved</th>
          <th scope="col" class="num">Sold</th>
          <th scope="col" class="num">Taken in</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="total in totals" :key="total.season ?? 'unknown'">
          <td>{{ total.season ?? 'unknown' }}</td>
          <td class="num">{{ total.animals }}</td>
          <td class="num">{{ total.counts['held-back'] }}</td>
          <td class="num">{{ total.counts['for-sale'] }}</td>
          <td class="num">{{ total.counts.reserved }}</td>
          <td class="num">{{ total.counts.sold }}</td>
          <td class="num">
            {{ total.takings.map(({ currency, amount }) => moneyWords(amount, currency)).join(' + ') || '–' }}
          </td>
        </tr>
      </tbody>
    </table>
  </v-card>
</template>

<style scoped>
.totals {
  margin-top: 16px;
  padding: 16px;
  overflow-x: auto;
}
</style>
