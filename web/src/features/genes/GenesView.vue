<script setup lang="ts">
import { hasAllWords, type CatalogueEntryInput, type CatalogueView } from '@karyotome/contract';
import { isGeneRule, markerId, ownId, type CatalogueMarker } from '@karyotome/core';
import { mdiClose, mdiMagnify, mdiPencilOutline, mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCatalogueEntries } from '../../stores/queries.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import EntryDialog from './EntryDialog.vue';
import GeneCard from './GeneCard.vue';
import GeneRuleDialog from './GeneRuleDialog.vue';
import MarkerDialog from './MarkerDialog.vue';
import UnprovenGenes from './UnprovenGenes.vue';
import UpdateCard from './UpdateCard.vue';
import { entryWords as wordsOfEntry } from './entry-words.ts';
import { combinations, geneCards } from './gene-cards.ts';
import { placeOf, type GeneRule } from './gene-rules.ts';

type Entry = CatalogueView['entries'][number];

/** What the words mean here: the catalogue, what stands behind it, and what the collection adds. */
const catalogue = useCatalogue();
const { data: own } = useCatalogueEntries();
const session = useSession();
const notices = useNotices();
const route = useRoute();
const router = useRouter();
const removal = useWrite(api.removeCatalogueEntry);
const dialog = ref<{
  kind: Exclude<CatalogueEntryInput['kind'], 'marker' | GeneRule['kind']>;
  locus?: string;
  allele?: string;
  editing?: Entry;
} | null>(null);
const search = computed({
  get: () => String(route.query['q'] ?? ''),
  set: (q: string) => void router.replace({ query: q ? { q } : {} }),
});
const fits = (text: string): boolean => hasAllWords(text, search.value);
const cards = computed(() => geneCards(catalogue.value));
const shown = computed(() => cards.value.filter(({ text }) => fits(text)));
const names = computed(() => {
  const aliases = (own.value?.entries ?? []).flatMap(({ entry }) => (entry.kind === 'alias' ? [entry] : []));
  return combinations(aliases).filter(([word, genes]) => fits(`${word} ${genes}`));
});

const entryWords = ({ entry }: Entry): string => wordsOfEntry(entry, catalogue.value);
const marker = ref<CatalogueMarker | true | null>(null);
function edit(editing: Entry): void {
  const { entry } = editing;
  if (entry.kind === 'marker')
    marker.value = catalogue.value.markers.find(({ id }) => id === markerId(entry)) ?? null;
  else if (isGeneRule(entry)) rule.value = { rule: { kind: entry.kind, ...place(editing) }, editing };
  else dialog.value = { kind: entry.kind, ...place(editing), editing };
}
const hasUnproven = computed(() => catalogue.value.loci.some(({ isUnproven }) => isUnproven));
/** Asks how a gene shows that is proven now. */
function prove(locus: string): void {
  const editing = own.value?.entries.find(
    ({ entry }) => entry.kind === 'locus' && ownId(entry.name) === locus,
  );
  if (editing) edit(editing);
}
/** One order for the collection: what there is, is changed. */
function orderOfLabels(): { rule: GeneRule; editing?: Entry } {
  const editing = own.value?.entries.find(({ entry }) => entry.kind === 'label-order');
  return { rule: { kind: 'label-order' }, ...(editing ? { editing } : {}) };
}
async function remove(entry: Entry): Promise<void> {
  if (await removal.run(entry.id)) notices.say('Taken out. What depended on it is worked out anew.');
  else notices.warn(removal.message.value ?? 'It could not be taken out');
}
const place = (entry: Entry) => placeOf(entry, (id) => catalogue.value.alleleById(id)?.locus.id);
const rule = ref<{ rule: GeneRule; editing?: Entry } | null>(null);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Genes</h1>
      <template v-if="session.mayBreed">
        <v-btn variant="outlined" :prepend-icon="mdiPlus" @click="dialog = { kind: 'alias' }">A word</v-btn>
        <v-btn variant="outlined" :prepend-icon="mdiPlus" @click="marker = true">A marker</v-btn>
        <v-btn variant="outlined" @click="rule = orderOfLabels()">Order of labels</v-btn>
        <v-btn color="primary" :prepend-icon="mdiPlus" @click="dialog = { kind: 'locus' }"
          >A gene or line</v-btn
        >
      </template>
    </div>
    <p class="soft intro">
      {{ catalogue.note }} Catalogue {{ catalogue.version }}, {{ catalogue.loci.length }} loci. Yours to add
      to; a correction works out anew whatever depends on it. Nothing here replaces breeding an animal to find
      out.
    </p>
    <v-text-field
      v-model="search"
      label="Search names, words, markers and cautions"
      :prepend-inner-icon="mdiMagnify"
      clearable
      hide-details
      class="search"
      @click:clear="search = ''"
    />
    <UpdateCard v-if="own?.update" :update="own.update" :may-breed="session.mayBreed" />
    <v-card v-if="own && own.entries.length > 0 && search.trim() === ''" class="own">
      <h2>Your own</h2>
      <ul>
        <li v-for="entry in own.entries" :key="entry.id">
          <span
            >{{ entryWords(entry) }}
            <span class="small soft"
              >{{ entry.author
              }}{{ entry.usedBy > 0 ? `, in the records of ${entry.usedBy} animals` : '' }}</span
            ></span
          >
          <span v-if="session.mayBreed">
            <v-btn
              :icon="mdiPencilOutline"
              size="small"
              variant="text"
              :aria-label="`Edit ${entryWords(entry)}`"
              @click="edit(entry)"
            />
            <v-btn
              :icon="mdiClose"
              size="small"
              variant="text"
              :aria-label="`Take out ${entryWords(entry)}`"
              @click="remove(entry)"
            />
          </span>
        </li>
      </ul>
    </v-card>
    <UnprovenGenes v-if="hasUnproven && search.trim() === ''" :may-breed="session.mayBreed" @prove="prove" />
    <p v-if="shown.length === 0 && names.length === 0" class="empty">
      Nothing in the catalogue fits “{{ search }}”. It can be added as a gene of your own.
    </p>
    <div class="cards">
      <GeneCard
        v-for="gene in shown"
        :key="gene.locus.id"
        :gene="gene"
        :may-breed="session.mayBreed"
        @add-allele="dialog = { kind: 'allele', locus: $event }"
        @correct="dialog = { kind: 'correction', allele: $event }"
        @recombination="dialog = { kind: 'recombination', locus: $event }"
        @rule="rule = { rule: $event }"
      />
    </div>
    <section v-if="names.length > 0" class="names">
      <h2>Names of combinations</h2>
      <p class="soft small">Words only: a label can always be written gene by gene.</p>
      <ul>
        <li v-for="[word, genes] in names" :key="word">
          <strong>{{ word.replace(/\b./g, (first) => first.toUpperCase()) }}</strong> {{ genes }}
        </li>
      </ul>
    </section>
    <MarkerDialog v-if="marker" :marker="marker === true ? undefined : marker" @close="marker = null" />
    <GeneRuleDialog v-if="rule" :key="JSON.stringify(rule.rule)" v-bind="rule" @close="rule = null" />
    <EntryDialog
      v-if="dialog"
      :key="`${dialog.kind}${dialog.locus}${dialog.allele}${dialog.editing?.id}`"
      v-bind="dialog"
      @close="dialog = null"
    />
  </div>
</template>

<style scoped>
.intro {
  max-width: 80ch;
  margin-bottom: 12px;
}
.search {
  max-width: 520px;
  margin-bottom: 16px;
}
.own,
.names {
  display: grid;
  gap: 8px;
  margin-bottom: 16px;
}
.own {
  padding: 16px;
}
.own ul {
  padding: 0;
  list-style: none;
}
.own li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  min-height: 40px;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(360px, 100%), 1fr));
  gap: 14px;
  margin-bottom: 24px;
  /* Single genes fill the gaps beside the wide complexes. */
  grid-auto-flow: dense;
}
.names ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 4px 18px;
  padding: 0;
  list-style: none;
}
.empty {
  margin-bottom: 16px;
}
</style>
