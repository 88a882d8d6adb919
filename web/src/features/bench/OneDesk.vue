<script setup lang="ts">
import type { BenchView, HatchlingView, RecordKind } from '@karyotome/contract';
import type { CallRecord, Catalogue, CatalogueMarker, Zone } from '@karyotome/core';
import { impossibleWords, placeWords, sexDoubtWords } from '@karyotome/words';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { agoWords, dayWords, massWords, oddsWords, sexWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import type { RankingAnswer } from '../../workers/ranking.worker.ts';
import MarkerDialog from '../genes/MarkerDialog.vue';
import { identificationWords } from '../records/record-defaults.ts';
import IdentifyForm from './IdentifyForm.vue';
import NextObservations from './NextObservations.vue';
import OddsTable from './OddsTable.vue';
import OpinionList from './OpinionList.vue';
import MarkerList from './MarkerList.vue';
import ZoneMap from './ZoneMap.vue';
import type { Mark, useObservations } from './useObservations.ts';

/** One hatchling in the hand: its zones, its odds, and what it is called. */
const props = defineProps<{
  hatchling: HatchlingView;
  bench: BenchView;
  answer: RankingAnswer | undefined;
  observed: ReturnType<typeof useObservations>;
  markers: readonly CatalogueMarker[];
  genes: ReadonlySet<string>;
  catalogue: Catalogue;
  calls: readonly CallRecord[];
  mayBreed: boolean;
}>();
const emit = defineEmits<{
  record: [RecordKind];
  compare: [phenotype: string | null];
  pictures: [];
  next: [];
}>();
const zone = ref<Zone>('head top');
const markerDialog = ref<{ zone: Zone; marker?: CatalogueMarker } | null>(null);
const form = useTemplateRef('form');
const observations = computed(() => props.observed.observationsOf(props.hatchling));
const ranking = computed(() => props.answer?.ranking ?? null);
const advice = computed(() => props.answer?.advice ?? { markers: [], compare: [], againOn: null });
const zonesNext = computed(() => [
  ...new Set(
    advice.value.markers.flatMap(({ marker }) => props.markers.find(({ id }) => id === marker)?.zone ?? []),
  ),
]);
// Where a look would settle most is where the hand begins.
watch(
  () => props.hatchling.id,
  () => (zone.value = zonesNext.value[0] ?? 'head top'),
  { immediate: true },
);
const mark = (marker: string, state: Mark): void => props.observed.mark(props.hatchling.id, marker, state);
const identifications = computed(() =>
  props.hatchling.records.flatMap((record) => (record.kind === 'identification' ? [record] : [])),
);
const outside = computed(() =>
  (ranking.value?.outside ?? []).flatMap(
    (id) => props.catalogue.markers.find((marker) => marker.id === id) ?? [],
  ),
);
const sexed = computed(() =>
  props.hatchling.records.find((record) => record.kind === 'sex' && record.voided === null),
);
const shed = computed(() =>
  props.hatchling.records.find(
    (record) => record.kind === 'shed' && record.voided === null && record.body.stage === 'shed',
  ),
);
const meals = computed(() =>
  props.hatchling.records.flatMap((record) =>
    record.kind === 'feeding' && record.voided === null ? [record.body] : [],
  ),
);
const taken = computed(() => meals.value.filter((meal) => meal.taken).length);
const ACTS: readonly { kind: RecordKind; title: string }[] = [
  { kind: 'sex', title: 'Sex' },
  { kind: 'weight', title: 'Weight' },
  { kind: 'shed', title: 'Shed' },
  { kind: 'feeding', title: 'Meal' },
  { kind: 'move', title: 'Tub' },
  { kind: 'note', title: 'Note' },
];
</script>

<template>
  <div class="desk">
    <section class="hand">
      <div class="row facts small">
        <span
          >{{ sexWords(hatchling.sex)
          }}<template v-if="sexed?.kind === 'sex'">, {{ sexed.body.method }}</template></span
        >
        <span>{{ hatchling.massG === null ? 'not weighed' : massWords(hatchling.massG) }}</span>
        <span>{{
          shed?.kind === 'shed'
            ? `shed ${agoWords(shed.on)}, ${shed.body.complete === false ? 'in pieces' : 'whole'}`
            : 'no shed yet'
        }}</span>
        <span v-if="meals.length > 0">{{ taken }} of {{ meals.length }} meals</span>
        <span v-if="hatchling.tub">{{ placeWords(hatchling.tub) }}</span>
        <span v-if="hatchling.isTwin">twin</span>
      </div>
      <div v-if="mayBreed" class="row acts">
        <v-btn
          v-for="act in ACTS"
          :key="act.kind"
          size="small"
          variant="outlined"
          @click="emit('record', act.kind)"
          >{{ act.title }}</v-btn
        >
        <v-btn size="small" variant="outlined" @click="emit('pictures')">Picture</v-btn>
        <v-btn size="small" variant="outlined" @click="emit('compare', null)">Compare</v-btn>
      </div>
      <v-alert
        v-for="reason in [
          ...hatchling.impossible.map((one) => `The pairing cannot give this. ${impossibleWords(one)}`),
          ...hatchling.sexDoubts.map((one) => sexDoubtWords(one, reader())),
        ]"
        :key="reason"
        type="error"
        variant="tonal"
        density="compact"
        :icon="false"
        class="small"
        >{{ reason }}.</v-alert
      >
      <ZoneMap v-model="zone" :markers="markers" :observations="observations" :next="zonesNext" />
      <p v-if="observed.failed.value" class="small warn" role="status">
        Not saved yet: {{ observed.failed.value }} It is kept here and sent again with the next touch.
      </p>
    </section>
    <section class="zone">
      <MarkerList
        :zone="zone"
        :markers="markers"
        :observations="observations"
        :weights="ranking?.markers ?? []"
        :catalogue="catalogue"
        :may-breed="mayBreed"
        @mark="mark"
        @chances="markerDialog = { zone, marker: $event }"
        @add="markerDialog = { zone }"
      />
      <p v-for="marker in outside" :key="marker.id" class="small warn">
        {{ marker.zone }}: {{ marker.text }} is a marker of a gene that this pair cannot give as recorded. A
        parent may carry more, or something else looks like it.
      </p>
      <NextObservations
        v-if="ranking"
        :advice="advice"
        :markers="markers"
        :may-breed="mayBreed"
        @mark="mark"
        @compare="emit('compare', $event)"
      />
    </section>
    <section class="odds">
      <template v-if="ranking">
        <OddsTable
          :ranking="ranking"
          :outcomes="bench.outcomes"
          :may-choose="mayBreed"
          @choose="form?.take($event.phenotype)"
        />
        <p v-for="one in ranking.carried" :key="one.allele" class="small">
          Carries {{ catalogue.alleleName(one.allele) }} unseen: {{ oddsWords(one.p) }} with the marker,
          {{ oddsWords(one.pBefore) }} before. A hint, never proof.
        </p>
        <p v-if="hatchling.sires.length > 1" class="small">
          Sire, with what was seen:
          {{
            bench.sires.map((sire) => `${sire.number} ${oddsWords(ranking!.sires[sire.id] ?? 0)}`).join(', ')
          }}.
        </p>
      </template>
      <p v-else-if="hatchling.hypotheses.length === 0" class="small soft">
        A parent is not identified yet, so there are no odds. It can be identified anyway.
      </p>
      <p v-else-if="answer?.failure === 'fault'" class="small warn">
        The odds could not be computed: a fault of this program, not of the records. It can be identified all
        the same.
      </p>
      <p v-else-if="answer" class="small soft">
        This pair can give more kinds than can be weighed at once. It can be identified anyway.
      </p>
      <v-progress-linear v-else indeterminate aria-label="Weighing what it can be" />
      <IdentifyForm
        v-if="mayBreed"
        :key="hatchling.id"
        ref="form"
        :hatchling="hatchling"
        :ranking="ranking"
        :observations="observations"
        :catalogue="catalogue"
        :calls="calls"
        @done="emit('next')"
      />
      <section v-if="identifications.length > 0" class="history" aria-label="Identifications">
        <h3>Identified</h3>
        <p v-for="record in identifications" :key="record.id" class="small" :class="{ void: record.voided }">
          {{ dayWords(record.on) }}: {{ identificationWords(record.body, catalogue)
          }}<template v-if="record.body.alternatives?.length">
            <span class="soft">
              left open:
              {{
                record.body.alternatives.map((one) => `(${one.genes}) ${oddsWords(one.p)}`).join(', ')
              }}</span
            ></template
          >
        </p>
        <v-btn
          v-if="mayBreed && Object.keys(observations).length > 0"
          size="small"
          variant="text"
          @click="observed.clear(hatchling.id)"
          >Look afresh</v-btn
        >
      </section>
      <OpinionList :key="hatchling.id" :hatchling="hatchling" :may-breed="mayBreed" />
    </section>
    <MarkerDialog
      v-if="markerDialog"
      :zone="markerDialog.zone"
      :marker="markerDialog.marker"
      :genes="genes"
      @close="markerDialog = null"
    />
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1.02fr) minmax(0, 0.92fr) minmax(0, 1.2fr);
  align-items: start;
  gap: 18px;
}
.hand,
.zone,
.odds {
  display: grid;
  gap: 12px;
  min-width: 0;
}
.facts span + span::before {
  content: '· ';
}
.warn {
  color: rgb(var(--v-theme-warning));
  font-weight: 560;
}
.history {
  display: grid;
  gap: 4px;
  justify-items: start;
}
.void {
  text-decoration: line-through;
}
.acts :deep(.v-btn) {
  min-height: 44px;
}
@media (width < 1000px) {
  .desk {
    grid-template-columns: 1fr 1fr;
  }
  .odds {
    grid-column: 1 / -1;
  }
}
@media (width < 700px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
