<script setup lang="ts">
import { GONE, STATUSES } from '@karyotome/contract';
import { placeWords } from '@karyotome/words';
import { mdiAlertOutline, mdiMagnify, mdiPlus, mdiTrayArrowDown } from '@mdi/js';
import { refDebounced, useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useDisplay } from 'vuetify';
import { agoWords, ageWords, countWords, massWords, sexSign, statusWords } from '../../format/format.ts';
import { useAnimalFilter, useAnimals, useContradictions, useHasAnimals } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import AnimalDialog from './AnimalDialog.vue';
import ChosenBar from './ChosenBar.vue';
import { COLUMNS, ON_A_PHONE } from './columns.ts';
import ColumnsMenu from './ColumnsMenu.vue';
import FilterLine from './FilterLine.vue';
import ListsMenu from './ListsMenu.vue';

const HERE = STATUSES.filter((status) => !GONE.includes(status)).join(',');
const ALL = 'all';
const STATES = [
  { value: '', title: 'In the collection' },
  { value: ALL, title: 'All, also sold and died' },
  ...STATUSES.map((value) => ({ value, title: statusWords(value) })),
];
const TYPING_MS = 200;
/** More is read before the end of what is there comes into sight. */
const AHEAD_PX = 1200;

const { data: contradictions } = useContradictions();
const session = useSession();
const route = useRoute();
const router = useRouter();
const { smAndDown } = useDisplay();
const adding = ref(route.query['add'] === '1');
/** From the cards that they were kept by so far. */
const fromCards = route.query['cards'] === '1';
const ask = (more: Record<string, string | undefined>): void =>
  void router.replace({ query: { ...route.query, ...more } });
const search = computed({
  get: () => String(route.query['q'] ?? ''),
  set: (q: string | null) => ask({ q: q || undefined }),
});
const state = computed({
  get: () => String(route.query['status'] ?? ''),
  set: (status: string) => ask({ status: status || undefined }),
});
const sort = computed({
  get: () => String(route.query['sort'] ?? ''),
  set: (by: string) => ask({ sort: by || undefined }),
});
const typed = refDebounced(search, TYPING_MS);
const filter = computed((): Record<string, string> => ({
  ...(typed.value.trim() ? { search: typed.value.trim() } : {}),
  ...(state.value === ALL ? {} : { status: state.value || HERE }),
  ...(sort.value ? { sort: sort.value } : {}),
}));
/** How what was typed is read. */
const { data: read } = useAnimalFilter(() => typed.value.trim());
const { data: parts, status, error, refetch, more } = useAnimals(filter);
const total = computed(() => parts.value?.[0]?.total ?? 0);
const isNothingFound = computed(() => parts.value?.[0]?.total === 0);
const { data: hasAnimals } = useHasAnimals(isNothingFound);
const rows = computed(() =>
  (parts.value ?? [])
    .flatMap(({ items }) => items)
    .map((animal) => ({
      ...animal,
      rack: animal.tub ? placeWords(animal.tub) : '',
    })),
);
const chosen = ref<string[]>([]);
/** On a phone the boxes to choose by are shown when they are asked for; elsewhere always. */
const isChoosing = ref(false);
const mayChoose = computed(() => session.mayRecord && (!smAndDown.value || isChoosing.value));
function endChoosing(): void {
  isChoosing.value = false;
  chosen.value = [];
}
function onRow({ id }: { id: string }): void {
  if (!isChoosing.value) void router.push(`/animals/${id}`);
  else if (chosen.value.includes(id)) chosen.value = chosen.value.filter((one) => one !== id);
  else chosen.value = [...chosen.value, id];
}
/** As they stand in the list; who is no longer in it is chosen no more. */
const chosenAnimals = computed(() => {
  const ids = new Set(chosen.value);
  return rows.value.filter(({ id }) => ids.has(id));
});
function nearEnd({ target }: Event): void {
  const { scrollTop, clientHeight, scrollHeight } = target as HTMLElement;
  if (scrollTop + clientHeight > scrollHeight - AHEAD_PX) more();
}
const sortBy = computed({
  get: () =>
    sort.value
      ? [{ key: sort.value.replace(/^-/, ''), order: sort.value.startsWith('-') ? 'desc' : 'asc' } as const]
      : [],
  set: ([by]: { key: string; order?: 'asc' | 'desc' | boolean }[]) =>
    (sort.value = by ? `${by.order === 'desc' ? '-' : ''}${by.key}` : ''),
});
const hidden = useLocalStorage<readonly string[]>('karyotome.animals.hidden-columns', []);
const headers = computed(() =>
  COLUMNS.filter(({ key }) => (smAndDown.value ? ON_A_PHONE.includes(key) : !hidden.value.includes(key))),
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
      <v-btn v-if="session.mayBreed" variant="outlined" to="/animals/take-in">Take in</v-btn>
      <v-btn v-if="session.mayBreed" variant="outlined" :prepend-icon="mdiTrayArrowDown" to="/animals/import"
        >Bring in CSV</v-btn
      >
      <v-btn v-if="session.mayBreed" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
        >Add an animal</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="isNothingFound && hasAnimals === false"
      empty-title="No animal yet"
      :empty-text="
        session.mayBreed
          ? 'Enter your breeders by typing their genes in your own shorthand, or bring the whole collection in from a CSV file.'
          : 'Somebody who may breed and identify enters them.'
      "
      @retry="refetch()"
    >
      <template v-if="session.mayBreed" #first>
        <v-btn color="primary" @click="adding = true">Add an animal</v-btn>
        <v-btn to="/animals/import">Bring in CSV</v-btn>
      </template>
      <div class="filters">
        <v-text-field
          v-model="search"
          label="Find by number, name, gene or rack"
          placeholder="or: female, clown or het clown, over 1200 g"
          :prepend-inner-icon="mdiMagnify"
          clearable
          density="compact"
        />
        <v-select v-model="state" label="Which" :items="STATES" density="compact" hide-details />
        <div class="row found">
          <span class="soft num">{{ countWords(total, 'animal', 'animals') }}</span>
          <v-btn
            v-if="smAndDown && session.mayRecord && !isChoosing"
            variant="text"
            @click="isChoosing = true"
            >Choose several</v-btn
          >
          <v-btn
            v-else-if="smAndDown && isChoosing && chosenAnimals.length === 0"
            variant="tonal"
            @click="endChoosing"
            >End choosing</v-btn
          >
          <ListsMenu @choose="search = $event" />
          <ColumnsMenu v-if="!smAndDown" v-model="hidden" />
          <TableLink v-if="!isChoosing" list="animals" :query="filter" />
        </div>
      </div>
      <FilterLine v-if="read && typed.trim() !== ''" :filter="read" :text="typed.trim()" />
      <ChosenBar v-if="chosenAnimals.length > 0" :animals="chosenAnimals" @clear="endChoosing" />
      <v-card @scroll.capture="nearEnd">
        <v-data-table-virtual
          v-model:sort-by="sortBy"
          v-model="chosen"
          :show-select="mayChoose"
          :headers="headers"
          :items="rows"
          item-value="id"
          class="list"
          fixed-header
          density="comfortable"
          hover
          no-data-text="No animal fits"
          @click:row="(_: Event, { item }: { item: { id: string } }) => onRow(item)"
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
        </v-data-table-virtual>
      </v-card>
    </StateBlock>
    <AnimalDialog v-if="adding" :with-cards="fromCards" @close="adding = false" />
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: minmax(240px, 520px) minmax(180px, 240px) 1fr;
  gap: 16px;
  align-items: center;
  margin-bottom: 12px;
}
.found {
  justify-self: end;
}
.list {
  height: calc(100dvh - 214px);
  min-height: 320px;
}
:deep(tbody tr) {
  cursor: pointer;
}
@media (width < 700px) {
  .filters {
    grid-template-columns: 1fr;
    gap: 12px;
  }
  /* Between the bars, once the page is scrolled to it. */
  .list {
    height: calc(100dvh - 130px);
  }
  /* Columns stay as they are while rows come and go: the table is not measured anew for each. */
  .list :deep(table) {
    table-layout: fixed;
  }
  .list :deep(th:first-child) {
    width: 30%;
  }
  .list :deep(th:last-child) {
    width: 24%;
  }
}
</style>
