<script setup lang="ts">
import { NOT_IDENTIFIED } from '@karyotome/words';
import type { BenchView } from '@karyotome/contract';
import type { Catalogue, CatalogueMarker } from '@karyotome/core';
import { mdiChevronLeft, mdiChevronRight, mdiClose } from '@mdi/js';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { oddsWords } from '../../format/format.ts';
import { isTyping } from '../../ui/keys.ts';
import type { RankingAnswer } from '../../workers/ranking.worker.ts';
import ZoneMap from './ZoneMap.vue';
import { comparisonWords, leaderOf } from './bench-words.ts';

/** Two in large, side by side: clutch-mates, a parent, earlier young of the pair, an animal of one gene, or a gene's markers. */
const props = defineProps<{
  bench: BenchView;
  rankings: ReadonlyMap<string, RankingAnswer>;
  markers: readonly CatalogueMarker[];
  catalogue: Catalogue;
  /** What to begin with: ids, or `gene PHENOTYPE`. */
  begin: readonly [string, string];
}>();
const emit = defineEmits<{ close: [] }>();

interface Side {
  readonly key: string;
  readonly title: string;
  readonly text: string;
  readonly group: string;
  readonly pictureIds: readonly string[];
  readonly markers: readonly CatalogueMarker[];
}
const choices = computed((): Side[] => [
  ...props.bench.hatchlings.map((one): Side => {
    const leader = leaderOf(props.rankings.get(one.id)?.ranking);
    const text = one.identified
      ? one.label
      : leader
        ? `${leader.label}, ${oddsWords(leader.p)}`
        : NOT_IDENTIFIED;
    return {
      key: one.id,
      title: one.number,
      text,
      group: 'This clutch',
      pictureIds: one.pictureIds,
      markers: [],
    };
  }),
  ...[props.bench.dam, ...props.bench.sires].map((one): Side => ({
    key: one.id,
    title: `${one.role === 'dam' ? '♀' : '♂'} ${one.number}`,
    text: one.label,
    group: 'Parents',
    pictureIds: one.pictureIds,
    markers: [],
  })),
  ...props.bench.comparisons.map((one): Side => ({
    key: one.id,
    title: one.number,
    text: one.label,
    group: comparisonWords(one),
    pictureIds: one.pictureIds,
    markers: [],
  })),
  ...[...new Set(props.markers.flatMap(({ phenotypes }) => phenotypes))].map((phenotype): Side => {
    const name = phenotype
      .split('/')
      .map((id) => props.catalogue.alleleName(id))
      .join(' with ');
    return {
      key: `gene ${phenotype}`,
      title: name,
      text: 'its markers, as the trade has them',
      group: 'A gene’s markers',
      pictureIds: [],
      markers: props.markers.filter((marker) => marker.phenotypes.includes(phenotype)),
    };
  }),
]);
const chosen = ref<[string, string]>([...props.begin]);
const at = ref<[number, number]>([0, 0]);
const sides = computed(() =>
  chosen.value.map((key) => choices.value.find((one) => one.key === key) ?? choices.value[0]!),
);
const items = computed(() =>
  choices.value.map(({ key, title, text, group }) => ({
    value: key,
    title: `${title}: ${text}`,
    subtitle: group,
  })),
);
function turn(side: number, by: number): void {
  const count = sides.value[side]!.pictureIds.length;
  if (count > 0) at.value[side] = (at.value[side]! + by + count) % count;
}
function onKey(event: KeyboardEvent): void {
  if (isTyping(event.target)) return;
  if (event.key === 'ArrowLeft' || event.key === 'ArrowRight')
    turn(event.shiftKey ? 1 : 0, event.key === 'ArrowLeft' ? -1 : 1);
}
</script>

<template>
  <v-dialog :model-value="true" max-width="1180" @update:model-value="emit('close')">
    <v-card @keydown="onKey">
      <v-card-title class="row">
        Compare <v-spacer />
        <v-btn :icon="mdiClose" variant="text" aria-label="Close" @click="emit('close')" />
      </v-card-title>
      <v-card-text class="sides">
        <section v-for="(side, i) in sides" :key="i" class="side">
          <v-autocomplete
            v-model="chosen[i as 0 | 1]"
            :items="items"
            item-props
            :label="i === 0 ? 'Left' : 'Right'"
            density="compact"
            @update:model-value="at[i as 0 | 1] = 0"
          />
          <div class="frame">
            <img
              v-if="side.pictureIds.length > 0"
              :src="api.pictureUrl(side.pictureIds[at[i as 0 | 1]]!)"
              :alt="`Picture of ${side.title}`"
            />
            <div v-else-if="side.markers.length > 0" class="drawn">
              <ZoneMap
                bare
                model-value="ground colour"
                :markers="side.markers"
                :observations="Object.fromEntries(side.markers.map((marker) => [marker.id, 'seen' as const]))"
                :next="[]"
              />
              <ul class="told">
                <li v-for="marker in side.markers" :key="marker.id">
                  <strong>{{ marker.zone }}</strong> {{ marker.text }}
                </li>
              </ul>
            </div>
            <p v-else class="soft">No picture of {{ side.title }} yet.</p>
          </div>
          <div class="row">
            <span
              ><strong>{{ side.title }}</strong> {{ side.text }}</span
            >
            <v-spacer />
            <template v-if="side.pictureIds.length > 1">
              <v-btn
                :icon="mdiChevronLeft"
                size="small"
                variant="text"
                :aria-label="`Picture before, of ${side.title}`"
                @click="turn(i, -1)"
              />
              <span class="num small">{{ at[i as 0 | 1] + 1 }} of {{ side.pictureIds.length }}</span>
              <v-btn
                :icon="mdiChevronRight"
                size="small"
                variant="text"
                :aria-label="`Next picture of ${side.title}`"
                @click="turn(i, 1)"
              />
            </template>
          </div>
        </section>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  padding-top: 8px;
}
.side {
  display: grid;
  align-content: start;
  gap: 8px;
  min-width: 0;
}
.frame {
  display: grid;
  aspect-ratio: 4 / 3;
  border: 1px solid var(--hair);
  border-radius: 12px;
  overflow: auto;
  place-items: center;
}
.frame img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.drawn {
  width: 100%;
  padding: 12px;
}
.told {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 4px 16px;
  padding: 8px;
  list-style: none;
}
@media (width < 700px) {
  .sides {
    grid-template-columns: 1fr;
  }
}
</style>
