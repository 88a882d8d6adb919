<script setup lang="ts">
import { ZONES, type CatalogueTell, type Sighting, type Zone } from '@karyotome/core';
import { computed } from 'vue';

/**
 * A hatchling from above with its head enlarged: touch a zone to say what is seen there. What would settle most is pointed
 * out.
 */
const props = defineProps<{
  tells: readonly CatalogueTell[];
  sightings: Readonly<Record<string, Sighting>>;
  /** Zones to look at next, the most telling first. */
  next: readonly Zone[];
}>();
const zone = defineModel<Zone>({ required: true });

/** How each zone is drawn: shapes in drawing units, and where its name stands. */
const SHAPES: readonly { zone: Zone; d: string; at: readonly [number, number]; end?: boolean }[] = [
  { zone: 'belly edge', d: BODY(78), at: [352, 196] },
  { zone: 'flanks', d: BODY(62), at: [352, 140] },
  { zone: 'back', d: BODY(24), at: [352, 84] },
  {
    zone: 'tail',
    d: 'M206,281 C166,282 136,268 118,252 C110,245 116,238 124,243 C146,256 172,259 204,243 C216,240 216,279 206,281 Z',
    at: [66, 272],
  },
  {
    zone: 'neck',
    d: 'M70,176 C62,196 60,214 66,232 L120,232 C126,214 124,196 116,176 C104,188 82,188 70,176 Z',
    at: [93, 214],
  },
  {
    zone: 'lips',
    d: 'M93,18 C128,18 138,44 148,80 C158,116 146,156 116,178 C104,189 82,189 70,178 C40,156 28,116 38,80 C48,44 58,18 93,18 Z M93,34 C66,34 60,56 53,86 C46,118 56,146 78,164 C86,170 100,170 108,164 C130,146 140,118 133,86 C126,56 120,34 93,34 Z',
    at: [93, 9],
  },
  {
    zone: 'eye stripe',
    d: 'M76,36 C62,44 56,66 51,90 C45,120 56,150 74,168 L88,168 C66,148 60,122 66,92 C70,70 74,54 82,40 Z M110,36 C124,44 130,66 135,90 C141,120 130,150 112,168 L98,168 C120,148 126,122 120,92 C116,70 112,54 104,40 Z',
    at: [22, 132],
    end: true,
  },
  {
    zone: 'head top',
    d: 'M93,40 C84,42 78,58 74,78 C66,112 72,146 86,164 C90,168 96,168 100,164 C114,146 120,112 112,78 C108,58 102,42 93,40 Z',
    at: [93, 118],
  },
  {
    zone: 'eyes',
    d: 'M54,74 a8.5,8.5 0 1,0 17,0 a8.5,8.5 0 1,0 -17,0 Z M115,74 a8.5,8.5 0 1,0 17,0 a8.5,8.5 0 1,0 -17,0 Z',
    at: [168, 70],
    end: true,
  },
];
/** The body as one loose bend, as thick as it is asked for. */
function BODY(thickness: number): string {
  const t = thickness / 2;
  return [
    `M${232 - t},300 C${232 - t},210 ${150 + 60 - t},${130} ${230 - t},60`,
    `C${240 - t},30 ${264 - t * 0.4},${24 - t * 0.15} ${286},${26 - t * 0.2}`,
    `C${306 + t * 0.5},${30} ${300 + t},${62} ${292 + t},84`,
    `C${268 + t},150 ${276 + t},230 ${282 + t},300 Z`,
  ].join(' ');
}
const countsOf = (name: Zone): { seen: number; not: number; all: number } => {
  const own = props.tells.filter((tell) => tell.zone === name);
  const states = own.map(({ id }) => props.sightings[id]);
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
  if (all === 0) return `${name}: nothing to tell apart here`;
  return `${name}: ${seen} seen, ${not} not seen, of ${all}${next}`;
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
    <svg viewBox="0 0 400 304" class="drawing" aria-hidden="true">
      <g
        v-for="shape in SHAPES"
        :key="shape.zone"
        :class="[classOf(shape.zone), 'zone']"
        @click="zone = shape.zone"
      >
        <path :d="shape.d" fill-rule="evenodd" />
      </g>
      <g class="ground" :class="classOf('ground colour')" @click="zone = 'ground colour'">
        <circle cx="360" cy="258" r="24" />
      </g>
      <g class="marks">
        <template v-for="shape in SHAPES" :key="shape.zone">
          <text
            v-if="classOf(shape.zone).next || classOf(shape.zone).seen || classOf(shape.zone).looked"
            :x="shape.at[0]"
            :y="shape.at[1] + 4"
            :text-anchor="shape.end ? 'middle' : 'middle'"
            :class="{ pointer: classOf(shape.zone).next }"
          >
            {{ classOf(shape.zone).next ? 'look' : classOf(shape.zone).seen ? '+' : '−' }}
          </text>
        </template>
        <text
          v-if="
            classOf('ground colour').next || classOf('ground colour').seen || classOf('ground colour').looked
          "
          x="360"
          y="263"
          text-anchor="middle"
          :class="{ pointer: classOf('ground colour').next }"
        >
          {{ classOf('ground colour').next ? 'look' : classOf('ground colour').seen ? '+' : '−' }}
        </text>
      </g>
    </svg>
    <div class="chips" role="radiogroup" aria-label="Zones">
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
  max-height: 280px;
}
.zone,
.ground {
  cursor: pointer;
  fill: rgb(var(--v-theme-surface-light));
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1.2;
}
.ground {
  fill: color-mix(in srgb, rgb(var(--v-theme-secondary)) 30%, rgb(var(--v-theme-surface)));
}
.zone.seen {
  fill: color-mix(in srgb, rgb(var(--v-theme-primary)) 34%, rgb(var(--v-theme-surface)));
}
.zone.idle {
  fill: rgb(var(--v-theme-surface));
}
.zone.next,
.ground.next {
  stroke-dasharray: 5 3;
  stroke-width: 2.4;
  stroke: rgb(var(--v-theme-secondary));
}
.zone.chosen,
.ground.chosen {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 3.4;
}
.zone:hover path {
  fill: color-mix(in srgb, rgb(var(--v-theme-primary)) 22%, rgb(var(--v-theme-surface)));
}
.marks text {
  fill: rgb(var(--v-theme-on-surface));
  font-size: 14px;
  font-weight: 700;
  paint-order: stroke;
  stroke: rgb(var(--v-theme-surface));
  stroke-width: 4px;
  pointer-events: none;
}
.marks .pointer {
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
