<script setup lang="ts">
import type { Catalogue, CatalogueMarker, Observation, MarkerWeight, Zone } from '@karyotome/core';
import { computed } from 'vue';
import { ownersWords, markersOf } from './bench-words.ts';
import MarkerState from './MarkerState.vue';
import type { Mark } from './useObservations.ts';

/** The markers of one zone: seen, not seen, cannot say. */
const props = defineProps<{
  zone: Zone;
  markers: readonly CatalogueMarker[];
  observations: Readonly<Record<string, Observation>>;
  weights: readonly MarkerWeight[];
  catalogue: Catalogue;
  mayBreed: boolean;
}>();
defineEmits<{ mark: [marker: string, state: Mark]; chances: [marker: CatalogueMarker]; add: [] }>();
const own = computed(() => markersOf(props.markers, props.zone));
const weightOf = (id: string): MarkerWeight | undefined => props.weights.find(({ marker }) => marker === id);
function factorWords(id: string): string {
  const weight = weightOf(id);
  if (!weight) return '';
  if (weight.countedWith !== null) return 'counted with another in this zone';
  const { factor } = weight;
  return factor >= 1
    ? `${factor >= 10 ? Math.round(factor) : +factor.toFixed(1)} times likelier`
    : `${factor <= 0.1 ? Math.round(1 / factor) : +(1 / factor).toFixed(1)} times less likely`;
}
const percent = (p: number): string => `${Math.round(p * 100)}%`;
</script>

<template>
  <section class="markers" :aria-label="`Markers: ${zone}`">
    <h3>{{ zone[0]!.toUpperCase() + zone.slice(1) }}</h3>
    <p v-if="own.length === 0" class="soft small">No gene that this pair can give shows in this zone.</p>
    <div v-for="marker in own" :key="marker.id" class="marker">
      <div class="words">
        <span>{{ marker.text }}</span>
        <span class="small soft owner">
          {{ ownersWords(marker, catalogue) }},
          <button type="button" class="chance" @click="$emit('chances', marker)">
            {{ percent(marker.pWith) }} with it, {{ percent(marker.pWithout) }} without{{
              marker.isOwn ? ', yours' : ''
            }}
          </button>
        </span>
        <span v-if="factorWords(marker.id)" class="small factor">{{ factorWords(marker.id) }}</span>
      </div>
      <MarkerState
        :state="observations[marker.id] ?? null"
        :label="`${zone}: ${marker.text}`"
        :disabled="!mayBreed"
        @mark="$emit('mark', marker.id, $event)"
      />
    </div>
    <v-btn v-if="mayBreed" variant="text" size="small" class="add" @click="$emit('add')"
      >Add a marker here</v-btn
    >
  </section>
</template>

<style scoped>
.markers {
  display: grid;
  align-content: start;
  gap: 8px;
}
.marker {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--hair);
}
.words {
  display: grid;
  line-height: 1.3;
}
.chance {
  padding: 2px 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  text-decoration: underline dotted;
  cursor: pointer;
}
.factor {
  font-weight: 640;
}
.add {
  justify-self: start;
}
</style>
