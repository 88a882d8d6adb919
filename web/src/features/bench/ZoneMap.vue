<script setup lang="ts">
import { ZONES, type CatalogueMarker, type Observation, type Zone } from '@karyotome/core';
import { computed } from 'vue';

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

/** How each zone is drawn, from the back of the drawing to its front, and where its mark stands. */
const BODY = 'M222,66 C262,18 362,20 362,84 C362,140 262,128 258,186';
const SHAPES: readonly { zone: Zone; d: string; width?: number; at: readonly [number, number] }[] = [
  { zone: 'tail', d: 'M227,184 C224,244 292,270 384,250 C326,246 290,232 289,186 Z', at: [292, 246] },
  { zone: 'belly edge', d: BODY, width: 62, at: [392, 88] },
  { zone: 'flanks', d: BODY, width: 46, at: [343, 96] },
  { zone: 'back', d: BODY, width: 16, at: [290, 34] },
  {
    zone: 'neck',
    d: 'M59,190 L141,190 L150,200 C138,212 134,230 134,250 L134,292 L66,292 L66,250 C66,230 62,212 50,200 Z',
    at: [100, 246],
  },
  {
    zone: 'lips',
    d: 'M100,14 C122,14 134,30 142,52 C148,72 160,96 168,122 C178,152 172,180 150,200 L141,190 C158,174 163,152 155,126 C148,102 138,80 132,60 C126,40 116,26 100,26 C84,26 74,40 68,60 C62,80 52,102 45,126 C37,152 42,174 59,190 L50,200 C28,180 22,152 32,122 C40,96 52,72 58,52 C66,30 78,14 100,14 Z',
    at: [178, 130],
  },
  {
    zone: 'eye stripe',
    d: 'M68,60 C62,80 52,102 45,126 C37,152 42,174 59,190 L72,190 C58,172 54,152 60,128 C66,106 74,84 80,64 Z M132,60 C138,80 148,102 155,126 C163,152 158,174 141,190 L128,190 C142,172 146,152 140,128 C134,106 126,84 120,64 Z',
    at: [20, 160],
  },
  {
    zone: 'head top',
    d: 'M100,26 C116,26 122,44 120,64 C126,84 134,106 140,128 C146,152 142,172 128,190 L72,190 C58,172 54,152 60,128 C66,106 74,84 80,64 C78,44 84,26 100,26 Z',
    at: [100, 126],
  },
  {
    zone: 'eyes',
    d: 'M53,92 a9,9 0 1,0 18,0 a9,9 0 1,0 -18,0 Z M129,92 a9,9 0 1,0 18,0 a9,9 0 1,0 -18,0 Z',
    at: [26, 88],
  },
  { zone: 'ground colour', d: 'M338,200 a20,20 0 1,0 40,0 a20,20 0 1,0 -40,0 Z', at: [358, 200] },
];
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
    <svg viewBox="0 0 410 300" class="drawing" aria-hidden="true">
      <g
        v-for="shape in SHAPES"
        :key="shape.zone"
        class="zone"
        :class="[classOf(shape.zone), shape.zone.replace(' ', '-'), shape.width ? 'band' : 'plate']"
        @click="zone = shape.zone"
      >
        <title>{{ words(shape.zone) }}</title>
        <path v-if="shape.width" :d="shape.d" :stroke-width="shape.width + 3" class="edge" />
        <path :d="shape.d" :stroke-width="shape.width ?? 1.4" class="face" />
      </g>
      <template v-for="shape in SHAPES" :key="shape.zone">
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
