<script setup lang="ts">
import { MOST_GROWTH_LINES, PAGE_SIZE, WITHOUT_TUB, type AnimalSummary } from '@karyotome/contract';
import { STATUS_EVENT_WORDS } from '@karyotome/words';
import { computed, defineAsyncComponent, ref } from 'vue';
import { countWords } from '../../format/format.ts';
import { useRoundRacks } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import TableLink from '../../ui/TableLink.vue';
import FeedRackDialog from '../rounds/FeedRackDialog.vue';
import { mealOffers } from '../rounds/meal-offers.ts';
import { useRackFeeding } from '../rounds/useRackFeeding.ts';
import { stopPlace, stopsOf } from '../rounds/useRoundPlace.ts';
import { useStatusActs, type PlainKind } from '../showcase/useStatusActs.ts';
import MoveChosenDialog from './MoveChosenDialog.vue';

/** What is done with several animals at once. */
const props = defineProps<{ animals: readonly AnimalSummary[] }>();
const emit = defineEmits<{ clear: [] }>();
const GrowthDialog = defineAsyncComponent(() => import('../growth/GrowthDialog.vue'));
const LabelsDialog = defineAsyncComponent(() => import('../bench/LabelsDialog.vue'));
/** What is said by one touch; who bought one, or when it died, is said of one alone. */
const KINDS: readonly PlainKind[] = ['held-back', 'offered', 'withdrawn', 'breeder', 'undecided'];
const session = useSession();
const { decide, busy } = useStatusActs();
const dialog = ref<'labels' | 'move' | 'growth' | null>(null);
const numbers = computed(() => props.animals.map(({ number }) => number));
const ids = computed(() => props.animals.map(({ id }) => id));
const { data: racks } = useRoundRacks(() => props.animals.map(({ tub }) => tub?.rackId ?? WITHOUT_TUB));
const { feeding, enterMeals } = useRackFeeding();
/** The meals of those that are due, where they live. Who is in quarantine is fed apart. */
const offers = computed(() => {
  const chosen = new Set(ids.value);
  const stops = (racks.value ?? []).flatMap((rack) => stopsOf(rack));
  return mealOffers(
    stops.filter(({ animal }) => chosen.has(animal.id)).map((stop) => ({ ...stop, place: stopPlace(stop) })),
  );
});
async function say(kind: PlainKind): Promise<void> {
  if (await decide(ids.value, kind, numbers.value)) emit('clear');
}
</script>

<template>
  <div class="bar" role="region" aria-label="Chosen animals">
    <strong>{{ countWords(animals.length, 'animal', 'animals') }} chosen</strong>
    <v-menu v-if="session.maySell">
      <template #activator="{ props: activator }">
        <v-btn v-bind="activator" variant="outlined" size="small" :loading="busy">Status…</v-btn>
      </template>
      <v-list>
        <v-list-item v-for="kind in KINDS" :key="kind" :title="STATUS_EVENT_WORDS[kind]" @click="say(kind)" />
      </v-list>
    </v-menu>
    <v-btn
      v-if="session.mayRecord && offers.length > 0"
      variant="outlined"
      size="small"
      @click="feeding = { title: 'Feed the chosen', offers }"
      >Feed {{ offers.length }}…</v-btn
    >
    <v-btn v-if="session.mayHouse" variant="outlined" size="small" @click="dialog = 'move'">Move…</v-btn>
    <v-btn v-if="session.mayRecord" variant="outlined" size="small" @click="dialog = 'labels'">Labels…</v-btn>
    <v-btn
      v-if="animals.length > 1 && animals.length <= MOST_GROWTH_LINES"
      variant="outlined"
      size="small"
      @click="dialog = 'growth'"
      >Growth…</v-btn
    >
    <TableLink v-if="animals.length <= PAGE_SIZE.usual" list="animals" :query="{ id: ids.join(',') }" />
    <v-btn variant="text" size="small" @click="emit('clear')">Choose none</v-btn>
    <FeedRackDialog v-if="feeding" v-bind="feeding" @close="feeding = null" @enter="enterMeals" />
    <MoveChosenDialog
      v-if="dialog === 'move'"
      :animals="animals"
      @close="dialog = null"
      @moved="emit('clear')"
    />
    <GrowthDialog v-if="dialog === 'growth'" :ids="ids" @close="dialog = null" />
    <LabelsDialog
      v-if="dialog === 'labels'"
      :hatchlings="animals"
      :title="`Labels of ${countWords(animals.length, 'animal', 'animals')}`"
      @close="dialog = null"
    />
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  margin-bottom: 8px;
  padding: 6px 14px;
  border-radius: 10px;
  background: rgb(var(--v-theme-surface-light));
}
</style>
