<script setup lang="ts">
import { isGone } from '@karyotome/contract';
import { mdiAlertOutline, mdiMagnify, mdiPlus, mdiTrayArrowDown } from '@mdi/js';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useDisplay } from 'vuetify';
import { agoWords, ageWords, massWords, sexSign, statusWords } from '../../format/format.ts';
import { useAnimals, useContradictions } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import AnimalDialog from './AnimalDialog.vue';

const { data, status, error, refetch } = useAnimals();
const { data: contradictions } = useContradictions();
const session = useSession();
const route = useRoute();
const router = useRouter();
const { smAndDown } = useDisplay();
const adding = ref(route.query['add'] === '1');
const search = computed({
  get: () => String(route.query['q'] ?? ''),
  set: (q: string) => void router.replace({ query: { ...route.query, q: q || undefined } }),
});
const gone = computed({
  get: () => route.query['gone'] === '1',
  set: (on: boolean) => void router.replace({ query: { ...route.query, gone: on ? '1' : undefined } }),
});
const rows = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean);
  return (data.value ?? [])
    .filter((animal) => gone.value || !isGone(animal))
    .filter((animal) => {
      const text =
        `${animal.number} ${animal.name ?? ''} ${animal.label} ${statusWords(animal.status)} ${animal.tub?.rack ?? ''}`.toLowerCase();
      return words.every((word) => text.includes(word));
    })
    .map((animal) => ({
      ...animal,
      rack: animal.tub ? `${animal.tub.rack} ${animal.tub.level}-${animal.tub.slot}` : '',
    }));
});
const HEADERS = [
  { title: 'Number', key: 'number' },
  { title: 'Sex', key: 'sex' },
  { title: 'Genes', key: 'label' },
  { title: 'Age', key: 'hatchedOn' },
  { title: 'Weight', key: 'massG', align: 'end' as const },
  { title: 'Weighed', key: 'weighedOn' },
  { title: 'Tub', key: 'rack' },
  { title: 'Status', key: 'status' },
];
const headers = computed(() =>
  smAndDown.value ? HEADERS.filter((h) => ['number', 'label', 'massG'].includes(h.key)) : HEADERS,
);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Animals</h1>
      <v-btn
        v-if="contradictions && contradictions.length > 0"
        color="error"
        variant="tonal"
        :prepend-icon="mdiAlertOutline"
        to="/animals/contradictions"
        >{{
          contradictions.length === 1 ? '1 contradiction' : `${contradictions.length} contradictions`
        }}</v-btn
      >
      <v-btn v-if="session.mayRecord" variant="outlined" to="/animals/take-in">Take in</v-btn>
      <v-btn v-if="session.mayRecord" variant="outlined" :prepend-icon="mdiTrayArrowDown" to="/animals/import"
        >Bring in CSV</v-btn
      >
      <v-btn v-if="session.mayRecord" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
        >Add an animal</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No animal yet"
      empty-text="Enter your breeders by typing their genes in your own shorthand, or bring the whole collection in from a CSV file."
      @retry="refetch()"
    >
      <template #first>
        <v-btn color="primary" @click="adding = true">Add an animal</v-btn>
        <v-btn to="/animals/import">Bring in CSV</v-btn>
      </template>
      <div class="filters">
        <v-text-field
          v-model="search"
          label="Find by number, name, gene, status or rack"
          :prepend-inner-icon="mdiMagnify"
          clearable
          density="compact"
        />
        <v-switch v-model="gone" label="Also sold and died" hide-details density="compact" color="primary" />
        <span class="soft num">{{ rows.length }} animals</span>
      </div>
      <v-card>
        <v-data-table
          :headers="headers"
          :items="rows"
          :items-per-page="50"
          item-value="id"
          :items-per-page-options="[25, 50, 100]"
          density="comfortable"
          hover
          no-data-text="No animal fits"
          @click:row="(_: Event, { item }: { item: { id: string } }) => router.push(`/animals/${item.id}`)"
        >
          <template #[`item.number`]="{ item }">
            <router-link :to="`/animals/${item.id}`" class="plain"
              ><strong>{{ item.number }}</strong> {{ item.name }}</router-link
            >
          </template>
          <template #[`item.sex`]="{ item }"
            ><span :title="item.sex">{{ sexSign(item.sex) }}</span></template
          >
          <template #[`item.hatchedOn`]="{ item }">{{
            item.hatchedOn ? ageWords(item.hatchedOn) : ''
          }}</template>
          <template #[`item.massG`]="{ item }"
            ><span class="num">{{ item.massG === null ? '' : massWords(item.massG) }}</span></template
          >
          <template #[`item.weighedOn`]="{ item }"
            ><span class="small soft">{{
              item.weighedOn ? agoWords(item.weighedOn) : 'never'
            }}</span></template
          >
          <template #[`item.status`]="{ item }"
            >{{ statusWords(item.status)
            }}<span v-if="item.published" class="small soft">, published</span></template
          >
        </v-data-table>
      </v-card>
    </StateBlock>
    <AnimalDialog v-if="adding" :animals="data ?? []" @close="adding = false" />
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: minmax(240px, 480px) auto 1fr;
  gap: 16px;
  align-items: center;
  margin-bottom: 12px;
}
.filters .num {
  justify-self: end;
}
:deep(tbody tr) {
  cursor: pointer;
}
@media (width < 700px) {
  .filters {
    grid-template-columns: 1fr;
    gap: 4px;
  }
}
</style>
