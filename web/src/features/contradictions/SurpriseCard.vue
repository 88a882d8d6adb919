<script setup lang="ts">
import type { SurpriseView } from '@karyotome/contract';
import { oddsWords, oneIn } from '@karyotome/words';
import { useStateAnew } from './useStateAnew.ts';

/** A gene that an animal came in with though nobody said so, with its odds, and the way to state it. */
defineProps<{ surprise: SurpriseView; mayBreed: boolean }>();
const { stateAnew, busy } = useStateAnew();
/** Surer than this it need not be asked again. */
const SURE = 0.99;
</script>

<template>
  <v-card class="card">
    <h2>
      <router-link :to="`/animals/${surprise.animal.id}`">{{ surprise.animal.number }}</router-link>
      {{ surprise.p >= SURE ? 'must carry' : 'may carry' }} {{ surprise.alleles.join(' or ') }}, though nobody
      said so
    </h2>
    <p class="small">
      {{ oneIn(surprise.pBefore) }} beforehand, {{ oddsWords(surprise.p) }} by its young now. It was stated as
      {{ surprise.stated }}.
    </p>
    <v-btn
      v-if="mayBreed && surprise.p >= SURE"
      variant="outlined"
      size="small"
      :loading="busy"
      @click="stateAnew(surprise.animal, surprise.genes)"
      >State it as {{ surprise.genes }}</v-btn
    >
  </v-card>
</template>

<style scoped>
.card {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding: 16px;
}
</style>
