<script setup lang="ts">
import type { SaleLine } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { moneyWords } from '../../format/format.ts';
import { saleTotals, type TotalsBy } from './sale-totals.ts';

/** What became of the animals of each season, or of each pairing, and what they brought. */
const props = defineProps<{ lines: readonly SaleLine[] }>();
const by = ref<TotalsBy>('season');
const totals = computed(() => saleTotals(props.lines, by.value));
</script>

<template>
  <v-card v-if="totals.length" class="totals">
    <div class="row">
      <h2>Totals</h2>
      <v-btn-toggle v-model="by" density="compact" aria-label="Totals by">
        <v-btn value="season">By season</v-btn>
        <v-btn value="pairing">By pairing</v-btn>
      </v-btn-toggle>
    </div>
    <table class="figures">
      <thead>
        <tr>
          <th scope="col">{{ by === 'season' ? 'Season' : 'Pairing' }}</th>
          <th scope="col" class="num">Animals</th>
          <th scope="col" class="num">Held back</th>
          <th scope="col" class="num">For sale</th>
          <th scope="col" class="num">Reserved</th>
          <th scope="col" class="num">Sold</th>
          <th scope="col" class="num">Taken in</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="total in totals" :key="total.of ?? 'unknown'">
          <td class="of">{{ total.of ?? 'unknown' }}</td>
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
.of {
  white-space: nowrap;
}
.totals {
  margin-top: 16px;
  padding: 16px;
  overflow-x: auto;
}
</style>
