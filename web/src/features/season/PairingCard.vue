<script setup lang="ts">
import type { PairingView } from '@karyotome/contract';
import { PIP_DAYS } from '@karyotome/core';
import { dayWords, oddsWords } from '../../format/format.ts';

/** One female with her males, and the eggs that came of it. */
const props = defineProps<{ pairing: PairingView; mayRecord: boolean }>();
defineEmits<{ lay: [] }>();
const total = props.pairing.sires.reduce((sum, sire) => sum + sire.weight, 0);
const stage = (clutch: PairingView['clutches'][number]): string => {
  if (clutch.hatchedOn)
    return `${clutch.hatched} hatched on ${dayWords(clutch.hatchedOn)}, ${clutch.identified} identified`;
  if (clutch.day < PIP_DAYS.from)
    return `Day ${clutch.day}, first pip in about ${PIP_DAYS.from - clutch.day} days`;
  return `Day ${clutch.day}, first pip expected now`;
};
</script>

<template>
  <v-card class="card">
    <div class="pair">
      <router-link :to="`/animals/${pairing.dam.id}`" class="plain parent">
        <span class="sign">♀</span> <strong>{{ pairing.dam.number }}</strong> {{ pairing.dam.name }}
        <span class="soft small genes">{{ pairing.dam.label }}</span>
      </router-link>
      <router-link
        v-for="sire in pairing.sires"
        :key="sire.id"
        :to="`/animals/${sire.id}`"
        class="plain parent"
      >
        <span class="sign">♂</span> <strong>{{ sire.number }}</strong> {{ sire.name }}
        <span v-if="pairing.sires.length > 1" class="small soft"
          >candidate, {{ oddsWords(sire.weight / total) }} before any gene</span
        >
        <span class="soft small genes">{{ sire.label }}</span>
      </router-link>
    </div>
    <v-alert
      v-for="caution in pairing.cautions"
      :key="caution"
      type="warning"
      variant="tonal"
      density="compact"
      :icon="false"
      class="small"
      >{{ caution }}</v-alert
    >
    <router-link
      v-for="clutch in pairing.clutches"
      :key="clutch.id"
      :to="`/bench/${clutch.id}`"
      class="clutch"
    >
      <strong>Clutch {{ clutch.name }}</strong>
      <span class="num">{{ clutch.eggs }} eggs</span>
      <span class="small wide">{{ stage(clutch) }}</span>
      <span v-if="!clutch.hatchedOn" class="days"
        ><span :style="{ width: `${Math.min(100, (clutch.day / PIP_DAYS.to) * 100)}%` }"
      /></span>
    </router-link>
    <div v-if="pairing.clutches.length === 0" class="row">
      <span class="small soft">Together since {{ dayWords(pairing.startedOn) }}</span>
      <v-spacer />
      <v-btn v-if="mayRecord" variant="outlined" @click="$emit('lay')">Eggs laid…</v-btn>
    </div>
  </v-card>
</template>

<style scoped>
.card {
  display: grid;
  align-content: start;
  gap: 12px;
  padding: 16px;
}
.pair {
  display: grid;
  gap: 8px;
}
.sign {
  color: rgb(var(--v-theme-secondary));
  font-weight: 700;
}
.genes {
  display: block;
  padding-left: 20px;
}
a.clutch.clutch {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  padding: 10px 12px;
  border-radius: 10px;
  color: inherit;
  text-decoration: none;
  background: rgb(var(--v-theme-surface-light));
}
.clutch:hover {
  outline: 2px solid rgb(var(--v-theme-primary));
}
.wide {
  grid-column: 1 / -1;
}
.days {
  grid-column: 1 / -1;
  height: 6px;
  border-radius: 3px;
  background: var(--hair);
}
.days span {
  display: block;
  height: 100%;
  border-radius: 3px;
  background: rgb(var(--v-theme-secondary));
}
</style>
