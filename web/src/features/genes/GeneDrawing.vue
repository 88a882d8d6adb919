<script setup lang="ts">
import type { TraitMarker, Zone } from '@karyotome/core';
import { computed } from 'vue';
import { ZONE_SHAPES, ZONE_VIEW, type ZoneShape } from '../../ui/zone-shapes.ts';
import { zoneLook, type Pattern } from './zone-look.ts';

/** What to look for on an animal with one gene, on the zones where it is seen. Drawn from the words, not from an animal. */
const props = defineProps<{ name: string; markers: readonly TraitMarker[] }>();
const look = computed(() => zoneLook(props.markers));
const said = (zone: Zone): string =>
  props.markers
    .filter((marker) => marker.zone === zone)
    .map(({ text }) => text)
    .join('; ');
/** How long marks and gaps along the body are. */
const DASHES: Readonly<Record<Pattern, readonly [mark: number, gap: number]>> = {
  marks: [22, 12],
  bands: [9, 16],
  dots: [0.1, 15],
  tangled: [5, 5],
  stripe: [1000, 0],
  none: [0, 1000],
};
/** How wide the pattern is, as a share of its band. */
const WIDTHS: Readonly<Record<Pattern, number>> = {
  marks: 0.5,
  bands: 0.9,
  dots: 0.3,
  tangled: 0.6,
  stripe: 0.35,
  none: 0,
};
function dashesOf(zone: Zone): string {
  const { pattern, isSparse } = look.value[zone];
  const [mark, gap] = DASHES[pattern];
  return `${mark} ${isSparse && pattern !== 'stripe' ? gap * 2 : gap}`;
}
function inkWidthOf({ zone, width = 0 }: ZoneShape): number {
  const { pattern, isSparse } = look.value[zone];
  return width * WIDTHS[pattern] * (isSparse ? 0.6 : 1);
}
const isTold = (zone: Zone): boolean => props.markers.some((marker) => marker.zone === zone);
</script>

<template>
  <svg
    :viewBox="ZONE_VIEW"
    class="drawing"
    role="img"
    :aria-label="`${name}, drawn from what to look for: ${markers.map(({ zone, text }) => `${zone} ${text}`).join('; ')}`"
  >
    <g
      v-for="shape in ZONE_SHAPES"
      :key="shape.zone"
      :class="[shape.width ? 'band' : 'plate', { told: isTold(shape.zone) }]"
    >
      <title v-if="isTold(shape.zone)">{{ shape.zone }}: {{ said(shape.zone) }}</title>
      <path v-if="shape.width" :d="shape.d" :stroke-width="shape.width + 5" class="edge" />
      <path
        :d="shape.d"
        :stroke-width="shape.width ?? undefined"
        :style="shape.width ? { stroke: look[shape.zone].colour } : { fill: look[shape.zone].colour }"
        class="face"
      />
      <path
        v-if="shape.width && look[shape.zone].pattern !== 'none'"
        :d="shape.d"
        :style="{ stroke: look[shape.zone].ink, strokeDasharray: dashesOf(shape.zone) }"
        :stroke-width="inkWidthOf(shape)"
        :stroke-linecap="look[shape.zone].pattern === 'dots' ? 'round' : 'butt'"
      />
    </g>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-width: 150px;
}
path {
  fill: none;
}
.plate .face {
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1.2;
}
.band .edge {
  stroke: var(--hair);
}
/* What is to be looked at has a line around it. */
.told .edge {
  stroke: rgb(var(--v-theme-secondary));
}
.plate.told .face {
  stroke: rgb(var(--v-theme-secondary));
  stroke-width: 5;
}
</style>
