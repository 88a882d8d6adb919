<script setup lang="ts">
import { hatchRates, type RateBy, type RateGroup, type Share } from '@karyotome/core';
import { computed, ref } from 'vue';
import { temperatureWords } from '../../format/format.ts';
import { useHatchRates } from '../../stores/queries.ts';
import TableLink from '../../ui/TableLink.vue';

/** How many eggs were good and how many of them hatched, each share with the interval that so few eggs allow. */
const { data } = useHatchRates();
const by = ref<RateBy>('season');
const WAYS = [
  { value: 'season', title: 'Season' },
  { value: 'dam', title: 'Female' },
  { value: 'sire', title: 'Male' },
  { value: 'temperature', title: 'Temperature' },
] as const;
const rows = computed(() => hatchRates(data.value ?? [], by.value));
const percent = (share: number): number => Math.round(share * 100);
function groupWords(group: RateGroup): string {
  if (group === null) return 'not recorded';
  if (typeof group === 'string') return group;
  return `${temperatureWords(group.fromC)} to ${temperatureWords(group.toC)}`;
}
const words = (share: Share): string =>
  share.share === null
    ? 'nothing counted'
    : `${share.count} of ${share.of}, ${percent(share.share)}% (${percent(share.low)} to ${percent(share.high)}%)`;
</script>

<template>
  <v-card v-if="data && data.length > 0" class="rates">
    <div class="row">
      <h2>How the eggs did</h2>
      <v-spacer />
      <TableLink list="hatchRates" />
      <v-btn-toggle v-model="by" density="comfortable" class="ways" aria-label="By what">
        <v-btn v-for="way in WAYS" :key="way.value" :value="way.value">{{ way.title }}</v-btn>
      </v-btn-toggle>
    </div>
    <table>
      <thead>
        <tr>
          <th scope="col">{{ WAYS.find((way) => way.value === by)!.title }}</th>
          <th scope="col" class="num">Clutches</th>
          <th scope="col">Good eggs of all eggs</th>
          <th scope="col">Hatched of the good eggs</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="groupWords(row.group)">
          <th scope="row">{{ groupWords(row.group) }}</th>
          <td class="num">{{ row.clutches }}</td>
          <td v-for="(share, index) in [row.fertile, row.hatched]" :key="index">
            <span class="words small">{{ words(share) }}</span>
            <span class="scale" aria-hidden="true">
              <span
                class="band"
                :style="{ left: `${share.low * 100}%`, width: `${(share.high - share.low) * 100}%` }"
              />
              <span v-if="share.share !== null" class="mark" :style="{ left: `${share.share * 100}%` }" />
            </span>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="small soft">
      In brackets and as the band: the 95% interval (Wilson). Where bands overlap much, the difference may be
      luck. Twins count as one egg; a clutch with several possible fathers stands by itself.
    </p>
  </v-card>
</template>

<style scoped>
.rates {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 16px;
}
.ways {
  max-width: 100%;
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  font-weight: 560;
  text-align: left;
}
th.num {
  text-align: right;
}
td,
th {
  padding: 5px 12px 5px 0;
  vertical-align: top;
}
.words {
  display: block;
  font-variant-numeric: tabular-nums;
}
.scale {
  position: relative;
  display: block;
  height: 8px;
  margin-top: 3px;
  border-radius: 4px;
  background: rgb(var(--v-theme-surface-light));
}
.band {
  position: absolute;
  inset: 0 auto;
  border-radius: 4px;
  background: color-mix(in srgb, rgb(var(--v-theme-secondary)) 45%, transparent);
}
.mark {
  position: absolute;
  top: -2px;
  width: 4px;
  height: 12px;
  margin-left: -2px;
  border-radius: 2px;
  background: rgb(var(--v-theme-secondary));
}
@media (width < 600px) {
  th:nth-child(2),
  td:nth-child(2) {
    display: none;
  }
  .rates {
    padding: 12px;
  }
  td,
  th {
    padding-right: 8px;
  }
}
</style>
