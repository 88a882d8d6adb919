<script setup lang="ts">
import { INHERITANCES } from '@karyotome/core';
import { apartWords, INHERITANCE_WORDS } from '@karyotome/words';
import { countWords, oddsWords } from '../../format/format.ts';
import { useUnprovenGenes } from '../../stores/queries.ts';

/** Genes that are not proven: what the records say of each, and which pairings would tell. */
defineProps<{ mayBreed: boolean }>();
defineEmits<{ prove: [locus: string] }>();
const { data } = useUnprovenGenes();
const numberOf = (one: { number: string } | null): string => one?.number ?? 'an animal that does not show it';
</script>

<template>
  <v-card v-if="data && data.length > 0" class="part">
    <h2>Not proven</h2>
    <p class="small soft">
      They look different, and nobody knows yet whether that is inherited: nothing is inferred from them, and
      buyers are told so.
    </p>
    <section v-for="gene in data" :key="gene.locus" class="gene">
      <div class="row">
        <h3>{{ gene.name }}</h3>
        <v-spacer />
        <v-btn v-if="mayBreed" variant="outlined" size="small" @click="$emit('prove', gene.locus)"
          >It is proven…</v-btn
        >
      </div>
      <p v-if="gene.shows.length === 0">
        No animal shows it yet. Write its name among the genes when you identify one.
      </p>
      <template v-else>
        <p>
          Shown by
          <template v-for="(one, i) in gene.shows" :key="one.id"
            ><template v-if="i > 0">, </template
            ><router-link :to="`/animals/${one.id}`">{{ one.number }}</router-link></template
          >. Of their young {{ gene.young.showing }} show it and {{ gene.young.others }} do not.
        </p>
        <ul v-if="gene.odds" class="odds">
          <li v-for="way in INHERITANCES" :key="way">
            <strong>{{ oddsWords(gene.odds[way]) }}</strong> it {{ INHERITANCE_WORDS[way] }}
          </li>
        </ul>
        <template v-if="gene.tests.length > 0">
          <p><strong>What would prove it</strong></p>
          <ul>
            <li v-for="(one, i) in gene.tests" :key="i">
              {{ numberOf(one.dam) }} × {{ numberOf(one.sire) }}:
              {{ countWords(one.young, 'hatchling', 'hatchlings') }}, in nine of ten cases.
              <span class="small soft">{{ apartWords(one.apart) }}</span>
            </li>
          </ul>
        </template>
      </template>
    </section>
  </v-card>
</template>

<style scoped>
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 16px;
}
.gene {
  display: grid;
  gap: 6px;
}
.gene + .gene {
  padding-top: 8px;
  border-top: 1px solid var(--hair);
}
ul {
  margin: 0;
  padding-left: 20px;
}
</style>
