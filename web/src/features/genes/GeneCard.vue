<script setup lang="ts">
import { DISPUTED_ALLELISM, KNOWN_SINCE } from '@karyotome/core';
import { mdiPlus } from '@mdi/js';
import { computed } from 'vue';
import GeneDrawing from './GeneDrawing.vue';
import { AGREEMENT_WORDS, EXPRESSION_WORDS, type GeneCard } from './gene-cards.ts';
import type { GeneRule } from './gene-rules.ts';

/** One locus: its alleles, what two of them are called, how they are told, and what to beware of. */
const props = defineProps<{ gene: GeneCard; mayBreed: boolean }>();
const emit = defineEmits<{
  addAllele: [locus: string];
  recombination: [locus: string];
  correct: [allele: string];
  rule: [rule: GeneRule];
}>();
const disputed = computed(() =>
  props.gene.alleles.filter(({ id }) => (DISPUTED_ALLELISM[id]?.length ?? 0) > 1),
);
/** What may be said otherwise than the catalogue does. */
const choices = computed(() => {
  const { locus, alleles, isComplex } = props.gene;
  const about = (kind: GeneRule['kind'], title: string, allele?: string) => ({
    title,
    rule: { kind, locus: locus.id, ...(allele === undefined ? {} : { allele }) },
  });
  return [
    ...(isComplex ? [about('compound', 'Name two together')] : []),
    about('viability', 'How many live'),
    ...alleles.flatMap(({ id, name, expression }) => [
      ...(locus.sexLinked ? [] : [about('allelism', `Where ${name} belongs`, id)]),
      ...(expression === 'recessive' ? [about('frequency', `How often ${name} is carried unsaid`, id)] : []),
    ]),
  ];
});
</script>

<template>
  <v-card :id="gene.locus.id" class="gene" :class="{ complex: gene.isComplex }">
    <div class="head">
      <h2>{{ gene.locus.name }}</h2>
      <span class="small soft">
        {{
          gene.isComplex
            ? `one locus, ${gene.alleles.length} alleles`
            : EXPRESSION_WORDS[gene.alleles[0]!.expression]
        }}{{ gene.isOwn ? ', your own' : `, ${AGREEMENT_WORDS[gene.agreement]}` }}
      </span>
    </div>
    <p v-if="gene.isComplex" class="small">
      An animal has two places here in all: a parent with two of these gives one or the other to every egg.
      {{ EXPRESSION_WORDS[gene.alleles[0]!.expression].replace(/^./, (first) => first.toUpperCase()) }}.
    </p>
    <p v-if="gene.locus.sexLinked" class="small">
      On the sex chromosomes. A male gives it to sons or to daughters, crossovers aside:
      {{ gene.locus.sexLinked.recombination * 100 }}% of his young, an assumption.
      <v-btn v-if="mayBreed" size="x-small" variant="outlined" @click="emit('recombination', gene.locus.id)"
        >Change it</v-btn
      >
    </p>
    <dl class="alleles">
      <div v-for="allele in gene.alleles" :key="allele.id" class="allele">
        <dt>
          <strong>{{ allele.name }}</strong>
          <span v-if="allele.isOwn && !gene.isOwn" class="small soft"> your own</span>
          <span v-if="allele.words.length" class="small soft words">also {{ allele.words.join(', ') }}</span>
          <span v-if="allele.expression !== 'recessive'" class="small soft words"
            >two: {{ allele.double }}</span
          >
          <span v-if="KNOWN_SINCE[allele.id]" class="small soft words" title="From memory, no source"
            >known since about {{ KNOWN_SINCE[allele.id] }}</span
          >
          <GeneDrawing
            v-if="allele.markers.length"
            :name="allele.name"
            :markers="allele.markers"
            title="Drawn from what to look for: no picture of an animal"
          />
        </dt>
        <dd class="small">
          <template v-if="allele.markers.length">
            <span v-for="marker in allele.markers" :key="marker.zone + marker.text" class="marker"
              ><em>{{ marker.zone }}</em> {{ marker.isOfCarriers ? 'carriers at times: ' : ''
              }}{{ marker.text }}</span
            >
          </template>
          <span v-else class="marker soft">No markers noted.</span>
          <v-btn
            v-if="mayBreed && !allele.isOwn"
            size="x-small"
            variant="text"
            class="correct"
            :aria-label="`Correct ${allele.name}`"
            @click="emit('correct', allele.id)"
            >Correct</v-btn
          >
        </dd>
      </div>
    </dl>
    <p v-if="gene.locus.compounds.length" class="compounds small">
      <span v-for="compound in gene.locus.compounds" :key="compound.name"
        >{{
          compound.alleles.map((id) => gene.alleles.find((one) => one.id === id)?.name ?? id).join(' + ')
        }}
        = <strong>{{ compound.name }}</strong></span
      >
    </p>
    <p v-for="note in gene.locus.notes ?? []" :key="note" class="small">{{ note }}</p>
    <p v-for="text in gene.hides" :key="text" class="small">
      {{ text }} Not seeing a gene on it says nothing.
    </p>
    <p v-for="note in gene.locus.welfare ?? []" :key="note.text" class="small caution">{{ note.text }}</p>
    <p v-for="text in gene.lives" :key="text" class="small caution">{{ text }}</p>
    <p v-for="allele in disputed" :key="allele.id" class="small">
      Breeders dispute where {{ allele.name }} belongs: the catalogue gives one reading, and the collection
      may choose the other.
    </p>
    <div v-if="mayBreed" class="foot">
      <v-btn
        v-if="!gene.isOwn"
        size="small"
        variant="text"
        :prepend-icon="mdiPlus"
        @click="emit('addAllele', gene.locus.id)"
        >Add an allele here</v-btn
      >
      <v-menu>
        <template #activator="{ props: opener }">
          <v-btn
            size="small"
            variant="text"
            v-bind="opener"
            :aria-label="`More corrections: ${gene.locus.name}`"
            >More corrections</v-btn
          >
        </template>
        <v-list density="compact">
          <v-list-item
            v-for="choice in choices"
            :key="choice.title"
            :title="choice.title"
            @click="emit('rule', choice.rule)"
          />
        </v-list>
      </v-menu>
    </div>
  </v-card>
</template>

<style scoped>
.gene {
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 16px;
}
.complex {
  grid-column: span 2;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
}
.alleles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(310px, 100%), 1fr));
  gap: 10px 20px;
  margin: 0;
}
.allele {
  display: grid;
  grid-template-columns: 120px 1fr;
  gap: 2px 14px;
}
.alleles dd {
  margin: 0;
}
.words {
  display: block;
}
.marker {
  display: block;
}
.marker em {
  font-style: normal;
  color: var(--soft);
}
/* Quiet until one looks for it. */
.correct {
  margin: 2px 0 0 -8px;
  color: var(--soft);
}
.compounds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.caution {
  padding-left: 10px;
  border-left: 3px solid rgb(var(--v-theme-error));
}
.foot {
  margin: -4px 0 -8px -8px;
}
@media (width < 760px) {
  .complex {
    grid-column: auto;
  }
}
</style>
