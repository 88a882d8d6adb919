<script setup lang="ts">
import type { CatalogueMarker, ObservationAdvice } from '@karyotome/core';
import { mdiMagnify } from '@mdi/js';
import { dayWords, oddsWords } from '../../format/format.ts';
import MarkerState from './MarkerState.vue';
import type { Mark } from './useObservations.ts';

/** Where to look next: the markers that would separate the leading candidates best, what to compare with, or when to look again. */
const props = defineProps<{
  advice: ObservationAdvice;
  markers: readonly CatalogueMarker[];
  mayBreed: boolean;
}>();
defineEmits<{ mark: [marker: string, state: Mark]; compare: [phenotype: string] }>();
const markerOf = (id: string): CatalogueMarker | undefined =>
  props.markers.find((marker) => marker.id === id);
</script>

<template>
  <section class="next" aria-label="Look here next">
    <h3><v-icon :icon="mdiMagnify" size="20" /> Look here next</h3>
    <ol v-if="advice.markers.length > 0">
      <li v-for="one in advice.markers" :key="one.marker">
        <div class="words">
          <p>
            <strong>{{ markerOf(one.marker)?.zone }}</strong>: {{ markerOf(one.marker)?.text }}
          </p>
          <p class="small soft">
            {{ one.gene }}: {{ oddsWords(one.pIfSeen) }} if seen, {{ oddsWords(one.pIfNot) }} if not.
          </p>
        </div>
        <MarkerState
          :state="null"
          :label="`${markerOf(one.marker)?.zone}: ${markerOf(one.marker)?.text}, next`"
          :disabled="!mayBreed"
          @mark="$emit('mark', one.marker, $event)"
        />
      </li>
    </ol>
    <p v-else-if="advice.compare.length === 0 && advice.againOn === null" class="small soft">
      Nothing is left that an observation would distinguish.
    </p>
    <div v-if="advice.compare.length > 0" class="row small">
      <span>Hold it beside</span>
      <v-btn
        v-for="one in advice.compare"
        :key="one.phenotype"
        size="small"
        variant="outlined"
        @click="$emit('compare', one.phenotype)"
        >{{ one.label }}</v-btn
      >
    </div>
    <p v-if="advice.againOn" class="small">
      Colours open up: look again after the second shed, about {{ dayWords(advice.againOn) }}.
    </p>
  </section>
</template>

<style scoped>
.next {
  display: grid;
  gap: 8px;
}
ol {
  display: grid;
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.words {
  line-height: 1.3;
}
</style>
