<script setup lang="ts">
import { ZONES, type CatalogueMarker, type Observation, type Zone } from '@karyotome/core';
import { computed } from 'vue';
import { ZONE_SHAPES, ZONE_VIEW } from '../../ui/zone-shapes.ts';

/**
 * A hatchling from above with its head enlarged: touch a zone to say what is seen there. What would settle most is pointed
 * out.
 */
const props = defineProps<{
  markers: readonly CatalogueMarker[];
  observations: Readonly<Record<string, Observation>>;
  /** Zones to look at next, the most informative first. */
  next: readonly Zone[];
  /** The drawing alone, to be looked at. */
  bare?: boolean;
}>();
const zone = defineModel<Zone>({ required: true });

const countsOf = (name: Zone): { seen: number; not: number; all: number } => {
  const own = props.markers.filter((marker) => marker.zone === name);
  const states = own.map(({ id }) => props.observations[id]);
  return {
    all: own.length,
    seen: states.filter((state) => state === 'seen').length,
    not: states.filter((state) => state === 'not-seen').length,
  };
};
const counts = computed(() => new Map(ZONES.map((name) => [name, countsOf(name)])));
const words = (name: Zone): string => {
  const { seen, not, all } = counts.value.get(name)!;
  const next = props.next.includes(name) ? ', look here next' : '';
  if (all === 0) return `${name}: nothing to distinguish here`;
  return `${name}: ${seen} seen, ${not} not seen, of ${all}${next}`;
};
const markOf = (name: Zone): string => {
  const { next, seen, looked } = classOf(name);
  return next ? 'look' : seen ? '+' : looked ? '−' : '';
};
const classOf = (name: Zone) => ({
  chosen: zone.value === name,
  seen: counts.value.get(name)!.seen > 0,
  looked: counts.value.get(name)!.not > 0,
  next: props.next.includes(name),
  idle: counts.value.get(name)!.all === 0,
});
</script>

<template>
  <div class="map">
    <svg :viewBox="ZONE_VIEW" class="drawing" aria-hidden="true">
      <g
        v-for="shape in ZONE_SHAPES"
        :key="shape.zone"
        class="zone"
        :class="[classOf(shape.zone), shape.zone.replace(' ', '-'), shape.width ? 'band' : 'plate']"
        @click="zone = shape.zone"
      >
        <title>{{ words(shape.zone) }}</title>
        <path v-if="shape.width" :d="shape.d" :stroke-width="shape.width + 3" class="edge" />
        <path :d="shape.d" :stroke-width="shape.width ?? 1.4" class="face" />
      </g>
      <template v-for="shape in ZONE_SHAPES" :key="shape.zone">
        <text
          v-if="markOf(shape.zone)"
          :x="shape.at[0]"
          :y="shape.at[1] + 5"
          text-anchor="middle"
          class="mark"
          :class="{ pointer: classOf(shape.zone).next }"
        >
          {{ markOf(shape.zone) }}
        </text>
      </template>
    </svg>
    <div v-if="!bare" class="chips" role="radiogroup" aria-label="Zones">
      <button
        v-for="name in ZONES"
        :key="name"
        type="button"
        role="radio"
        class="chip"
        :class="classOf(name)"
        :aria-checked="zone === name"
        :aria-label="words(name)"
        @click="zone = name"
      >
        {{ name }}
        <span v-if="counts.get(name)!.seen || counts.get(name)!.not" class="num count">{{
          [
            counts.get(name)!.seen ? `+${counts.get(name)!.seen}` : '',
            counts.get(name)!.not ? `−${counts.get(name)!.not}` : '',
          ]
            .filter(Boolean)
            .join(' ')
        }}</span>
      </button>
    </div>
  </div>
</template>

<style scoped>
.map {
  display: grid;
  gap: 8px;
}
.drawing {
  width: 100%;
  max-height: 250px;
}
.zone {
  --tint: rgb(var(--v-theme-surface-light));
  cursor: pointer;
}
.back {
  --tint: color-mix(in srgb, rgb(var(--v-theme-on-surface)) 42%, rgb(var(--v-theme-surface)));
}
.flanks,
.tail,
.neck {
  --tint: color-mix(in srgb, rgb(var(--v-theme-secondary)) 30%, rgb(var(--v-theme-surface)));
}
.head-top,
.eye-stripe {
  --tint: color-mix(in srgb, rgb(var(--v-theme-on-surface)) 30%, rgb(var(--v-theme-surface)));
}
.head-top,
.ground-colour {
  --tint: color-mix(in srgb, rgb(var(--v-theme-secondary)) 42%, rgb(var(--v-theme-surface)));
}
.eyes {
  --tint: rgb(var(--v-theme-on-surface));
}
.zone.seen {
  --tint: rgb(var(--v-theme-primary));
}
.zone:hover {
  --tint: color-mix(in srgb, rgb(var(--v-theme-primary)) 55%, rgb(var(--v-theme-surface)));
}
.plate .face {
  fill: var(--tint);
  stroke: rgb(var(--v-theme-on-surface));
}
.band path {
  fill: none;
  stroke-linecap: butt;
}
.band .face {
  stroke: var(--tint);
}
.band .edge {
  stroke: rgb(var(--v-theme-on-surface));
}
.plate.chosen .face {
  stroke: rgb(var(--v-theme-secondary));
  stroke-width: 3.5;
}
.band.chosen .edge {
  stroke: rgb(var(--v-theme-secondary));
  stroke-dasharray: none;
}
.mark {
  fill: rgb(var(--v-theme-on-surface));
  font-size: 15px;
  font-weight: 700;
  paint-order: stroke;
  stroke: rgb(var(--v-theme-surface));
  stroke-width: 4px;
  pointer-events: none;
}
.pointer {
  fill: rgb(var(--v-theme-secondary));
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.chip {
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--hair);
  border-radius: 22px;
  background: none;
  color: inherit;
  font: inherit;
  font-size: 0.9rem;
  cursor: pointer;
}
.chip.idle {
  color: var(--soft);
}
.chip.next {
  border: 2px dashed rgb(var(--v-theme-secondary));
}
.chip.chosen {
  border: 2px solid rgb(var(--v-theme-primary));
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 14%, transparent);
}
.chip:focus-visible {
  outline: 2px solid rgb(var(--v-theme-secondary));
  outline-offset: 2px;
}
.count {
  font-weight: 700;
}
</style>
