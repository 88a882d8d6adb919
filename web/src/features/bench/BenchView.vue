<script setup lang="ts">
import type { RecordKind } from '@karyotome/contract';
import { mdiChevronLeft, mdiChevronRight } from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { computed, nextTick, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { isTyping } from '../../ui/keys.ts';
import { dayWords, temperatureWords } from '../../format/format.ts';
import { useBench, useCalls } from '../../stores/queries.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import { useRankings } from '../../workers/useRankings.ts';
import RecordDialog from '../records/RecordDialog.vue';
import type { RecordSubject } from '../records/useRecordForm.ts';
import AskDialog from './AskDialog.vue';
import ClutchEvidence from './ClutchEvidence.vue';
import CompareDialog from './CompareDialog.vue';
import HatchlingTile from './HatchlingTile.vue';
import LabelsDialog from './LabelsDialog.vue';
import OneDesk from './OneDesk.vue';
import ParentsBar from './ParentsBar.vue';
import PicturesDialog from './PicturesDialog.vue';
import SetUpDialog from './SetUpDialog.vue';
import SortTable from './SortTable.vue';
import WaitLines from './WaitLines.vue';
import { genesInPlay, lastShedOf, pullsOf, markersInPlay } from './bench-words.ts';
import { useObservations } from './useObservations.ts';
import { useSorting } from './useSorting.ts';

/** One clutch on the table: sorted side by side, or one of it in the hand. */
const route = useRoute();
const router = useRouter();
const clutchId = String(route.params['id']);
const { data, status, error, refetch } = useBench(clutchId);
const session = useSession();
const catalogue = useCatalogue();
const { data: proved } = useCalls();
const calls = computed(() => (proved.value?.byGene ?? []).filter(({ by }) => by === session.name));
const observed = useObservations(clutchId, data);
const sorting = useSorting(clutchId, data);
const hatchlings = computed(() => data.value?.hatchlings ?? []);
const { rankings } = useRankings(() =>
  hatchlings.value.map((one) => ({
    id: one.id,
    hypotheses: one.hypotheses,
    observations: observed.observationsOf(one),
    lastShed: lastShedOf(one),
  })),
);
const genes = computed(() => genesInPlay(hatchlings.value));
const markers = computed(() => markersInPlay(catalogue.value, genes.value));
const pulls = computed(() => pullsOf(hatchlings.value, observed.observationsOf));
/** In the order in which they lie on the table. */
const inOrder = computed(() => [
  ...sorting.inBox.value,
  ...sorting.groups.value.flatMap((group) => sorting.membersOf(group)),
]);
const one = computed(() => hatchlings.value.find(({ id }) => id === route.query['one']) ?? null);

// The one in the hand stays in sight among its mates.
watch(
  () => one.value?.id,
  async () => {
    await nextTick();
    document.querySelector('.strip [aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  },
);

const subject = ref<RecordSubject | null>(null);
const dialog = ref<'labels' | 'set-up' | 'ask' | 'pictures' | null>(null);
const compared = ref<[string, string] | null>(null);
const marked = ref<Set<string>>(new Set());

function open(id: string | null): void {
  void router.push({ query: id === null ? {} : { one: id } });
}
function step(by: number): void {
  const at = inOrder.value.findIndex(({ id }) => id === one.value?.id);
  const next = inOrder.value[(at + by + inOrder.value.length) % inOrder.value.length];
  if (next) void router.replace({ query: { one: next.id } });
}
/** After an identification the next one that still waits comes to hand. */
function next(): void {
  const at = inOrder.value.findIndex(({ id }) => id === one.value?.id);
  const others = [...inOrder.value.slice(at + 1), ...inOrder.value.slice(0, Math.max(0, at))];
  const waiting = others.find(({ identified }) => !identified);
  if (waiting) void router.replace({ query: { one: waiting.id } });
  else open(null);
}
function record(kind: RecordKind): void {
  if (one.value) subject.value = { animalId: one.value.id, number: one.value.number, kind };
}
function compare(phenotypeOrNull: string | null): void {
  const left = one.value?.id ?? hatchlings.value[0]!.id;
  const example = data.value?.comparisons.find(
    (other) => other.phenotype === phenotypeOrNull && other.pictureIds.length > 0,
  );
  const other = phenotypeOrNull === null ? inOrder.value.find(({ id }) => id !== left)?.id : undefined;
  compared.value = [left, example?.id ?? other ?? `gene ${phenotypeOrNull}`];
}
function mark(id: string): void {
  const set = new Set(marked.value);
  if (!set.delete(id)) set.add(id);
  marked.value = set;
  const [first, second] = [...set];
  if (first === undefined || second === undefined) return;
  compared.value = [first, second];
  marked.value = new Set();
}
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target) || !one.value) return;
  if (document.querySelector('.v-dialog.v-overlay--active, .v-menu.v-overlay--active')) return;
  if (event.key === 'j') step(1);
  else if (event.key === 'k') step(-1);
  else if (event.key === 'Escape') {
    const { number } = one.value;
    open(null);
    void nextTick(() => document.querySelector<HTMLElement>(`[data-number="${number}"]`)?.focus());
  }
}
useEventListener('keydown', onKey);
</script>

<template>
  <div class="place bench">
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <template v-if="data">
        <div class="place-head">
          <h1>
            <router-link v-if="one" :to="`/bench/${clutchId}`" class="plain"
              >Clutch {{ data.clutch.name }}</router-link
            >
            <template v-else>Clutch {{ data.clutch.name }}</template>
            <template v-if="one">, {{ one.number }}</template>
          </h1>
          <template v-if="one">
            <v-btn :icon="mdiChevronLeft" variant="text" aria-label="The one before" @click="step(-1)" />
            <v-btn :icon="mdiChevronRight" variant="text" aria-label="The next one" @click="step(1)" />
            <v-btn variant="outlined" @click="open(null)">The whole clutch</v-btn>
            <v-btn variant="outlined" :to="`/animals/${one.id}`">Its page</v-btn>
          </template>
          <template v-else>
            <span class="soft small">
              laid {{ dayWords(data.clutch.laidOn) }}, {{ data.clutch.eggs }} eggs<template
                v-if="data.clutch.incubationC"
                >, {{ temperatureWords(data.clutch.incubationC) }}</template
              ><template v-if="data.clutch.hatchedOn"
                >, hatched {{ dayWords(data.clutch.hatchedOn) }} (day {{ data.clutch.day }})</template
              ><template v-else>, day {{ data.clutch.day }}</template>
            </span>
            <v-btn variant="outlined" :to="`/season/clutches/${data.clutch.id}`">Eggs</v-btn>
            <template v-if="session.mayBreed && hatchlings.length > 0">
              <v-btn variant="outlined" :to="`/showcase/desk/${data.clutch.id}`">Who stays</v-btn>
              <v-btn variant="outlined" @click="dialog = 'pictures'">Pictures</v-btn>
              <v-btn variant="outlined" @click="dialog = 'ask'">Ask somebody</v-btn>
              <v-btn variant="outlined" @click="dialog = 'labels'">Labels</v-btn>
              <v-btn color="primary" @click="dialog = 'set-up'">Set up</v-btn>
            </template>
          </template>
        </div>
        <p v-if="one" class="small pair">
          {{ data.dam.number }} {{ data.dam.label }} ×
          {{ data.sires.map((sire) => `${sire.number} ${sire.label}`).join(' or ') }}
        </p>
        <ParentsBar v-else :bench="data" class="parents" />
        <WaitLines v-if="session.maySell && !one" :clutch-id="clutchId" :hatchlings="hatchlings" />
        <v-card v-if="hatchlings.length === 0" class="box">
          <h2>Still in the egg</h2>
          <p>
            When they have left the egg they are numbered on the page of their eggs. Never pull a hatchling
            out: it takes one to three days to absorb the yolk.
          </p>
          <div><v-btn color="primary" :to="`/season/clutches/${data.clutch.id}`">To the eggs</v-btn></div>
        </v-card>
        <template v-else-if="one">
          <nav class="strip" aria-label="The clutch">
            <HatchlingTile
              v-for="mate in inOrder"
              :key="mate.id"
              :hatchling="mate"
              :ranking="rankings.get(mate.id)?.ranking"
              :is-chosen="mate.id === one.id"
              @open="router.replace({ query: { one: mate.id } })"
            />
          </nav>
          <OneDesk
            :hatchling="one"
            :bench="data"
            :answer="rankings.get(one.id)"
            :observed="observed"
            :markers="markers"
            :genes="genes"
            :catalogue="catalogue"
            :calls="calls"
            :may-breed="session.mayBreed"
            @record="record"
            @compare="compare"
            @pictures="dialog = 'pictures'"
            @next="next"
          />
        </template>
        <div v-else class="whole">
          <SortTable
            :sorting="sorting"
            :rankings="rankings"
            :pulls="pulls"
            :marked="marked"
            :may-breed="session.mayBreed"
            @open="open"
            @mark="mark"
          />
          <ClutchEvidence :bench="data" :may-breed="session.mayBreed" />
        </div>
        <RecordDialog v-if="subject" :subject="subject" @close="subject = null" />
        <LabelsDialog
          v-if="dialog === 'labels'"
          :hatchlings="hatchlings"
          :title="`Labels, clutch ${data.clutch.name}`"
          @close="dialog = null"
        />
        <SetUpDialog
          v-if="dialog === 'set-up'"
          :clutch-id="clutchId"
          :clutch-name="data.clutch.name"
          @close="dialog = null"
          @labels="dialog = 'labels'"
        />
        <AskDialog v-if="dialog === 'ask'" :bench="data" @close="dialog = null" />
        <PicturesDialog
          v-if="dialog === 'pictures'"
          :bench="data"
          :animal-id="one?.id ?? null"
          @close="dialog = null"
        />
        <CompareDialog
          v-if="compared"
          :bench="data"
          :rankings="rankings"
          :markers="markers"
          :catalogue="catalogue"
          :begin="compared"
          @close="compared = null"
        />
      </template>
    </StateBlock>
  </div>
</template>

<style scoped>
.pair {
  margin: -8px 0 10px;
}
.parents {
  margin-bottom: 14px;
}
.whole {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  align-items: start;
  gap: 16px;
}
.box {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.strip {
  display: grid;
  grid-auto-columns: 116px;
  grid-auto-flow: column;
  gap: 8px;
  margin-bottom: 16px;
  padding: 3px;
  overflow-x: auto;
}
.strip :deep(.tile) {
  font-size: 0.86rem;
}
.strip :deep(.thumb) {
  aspect-ratio: 16 / 9;
}
.strip :deep(.label) {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
}
.strip :deep(.todo) {
  display: none;
}
@media (width < 1000px) {
  .whole {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
