<script setup lang="ts">
import type { KinNodeView } from '@karyotome/contract';
import { computed } from 'vue';
import { oddsWords } from '../../format/format.ts';
import { layOutKin, SYMBOL, type PlacedFamily } from './kin-layout.ts';

/**
 * Kin with the published pedigree symbols (Bennett et al. 2008): squares male, circles female, diamonds where the sex is not
 * known; filled where the chosen gene shows, half filled where it is carried; a stroke through the dead; a double line
 * between related parents.
 */
const props = defineProps<{
  animals: readonly KinNodeView[];
  proband: string;
  /** Animals on the way from the claim to its evidence. */
  path: ReadonlySet<string>;
  /** Animals whose records the claim rests on. */
  evidence: ReadonlySet<string>;
}>();
defineEmits<{ open: [string] }>();
const placed = computed(() => layOutKin(props.animals));
const spots = computed(() => new Map(placed.value.animals.map((one) => [one.animal.id, one])));
const R = SYMBOL / 2;

function fill({ gene }: KinNodeView): 'full' | 'half' | 'maybe' | 'none' {
  if (!gene || gene.pCarries < 1e-9) return 'none';
  if (gene.pShows > 0.5) return 'full';
  return gene.pCarries > 1 - 1e-9 ? 'half' : 'maybe';
}
function said(animal: KinNodeView): string {
  const { gene } = animal;
  const sex = animal.sex === 'unknown' ? 'not sexed' : animal.sex;
  const odds = !gene
    ? ''
    : gene.pShows > 0.5
      ? `, shows the gene (${oddsWords(gene.pShows)})`
      : gene.pCarries < 1e-9
        ? ', does not carry the gene'
        : `, carries the gene with ${oddsWords(gene.pCarries)}`;
  return `${animal.number}, ${sex}, ${animal.label}${odds}${animal.died ? ', died' : ''}`;
}
/** Below a symbol stand its number and a second line: lines begin under them. */
const WORDS = 36;
/** Down from a parent and across to the mating. */
function parentPath({ x, y }: PlacedFamily, id: string): string {
  const spot = spots.value.get(id)!;
  return `M${spot.x} ${spot.y + R + WORDS}V${y}H${x}`;
}
/** From the mating down to the line of siblings, and to one of them. */
function youngPath({ young, x, y }: PlacedFamily, id: string): string {
  const spot = spots.value.get(id)!;
  const line = Math.min(...young.map((one) => spots.value.get(one)!.y)) - R - 12;
  return `M${x} ${y}V${line}H${spot.x}V${spot.y - R}`;
}
const onPath = (family: PlacedFamily, child: string): boolean =>
  props.path.has(child) && family.parents.some((parent) => props.path.has(parent));
const leadsOn = (family: PlacedFamily, parent: string): boolean =>
  props.path.has(parent) && family.young.some((child) => props.path.has(child));
const clipId = (id: string): string => `half-${id}`;
</script>

<template>
  <div class="scroll" tabindex="0" role="group" aria-label="Kin chart">
    <svg :width="placed.width" :height="placed.height" :viewBox="`0 0 ${placed.width} ${placed.height}`">
      <!-- The evidence goes on top, or the lines to other young would cover it. -->
      <g v-for="layer in ['plain', 'evidence'] as const" :key="layer" class="lines" :class="layer">
        <g v-for="family in placed.families" :key="family.key" :class="{ open: family.p < 1 }">
          <template v-for="parent in family.parents" :key="parent">
            <path v-if="layer === 'plain' || leadsOn(family, parent)" :d="parentPath(family, parent)" />
            <path
              v-if="layer === 'plain' && family.related"
              :d="parentPath({ ...family, y: family.y - 4 }, parent)"
            />
          </template>
          <template v-for="child in family.young" :key="child">
            <path v-if="layer === 'plain' || onPath(family, child)" :d="youngPath(family, child)" />
          </template>
          <text v-if="layer === 'plain' && family.p < 1" :x="family.x + 6" :y="family.y + 15" class="odds">
            {{ oddsWords(family.p) }}
          </text>
        </g>
      </g>
      <a
        v-for="{ animal, x, y } in placed.animals"
        :key="animal.id"
        :href="`/animals/${animal.id}`"
        :aria-label="said(animal)"
        class="animal"
        :class="{ path: path.has(animal.id), rests: evidence.has(animal.id) }"
        @click.prevent="$emit('open', animal.id)"
      >
        <title>{{ said(animal) }}</title>
        <clipPath :id="clipId(animal.id)"><rect :x="x" :y="y - R" :width="R" :height="SYMBOL" /></clipPath>
        <g :transform="animal.sex === 'unknown' ? `rotate(45 ${x} ${y})` : undefined">
          <template v-for="layer in ['base', 'half'] as const" :key="layer">
            <component
              :is="animal.sex === 'female' ? 'circle' : 'rect'"
              v-if="layer === 'base' || fill(animal) === 'half'"
              v-bind="
                animal.sex === 'female'
                  ? { cx: x, cy: y, r: R }
                  : animal.sex === 'male'
                    ? { x: x - R, y: y - R, width: SYMBOL, height: SYMBOL }
                    : { x: x - R * 0.75, y: y - R * 0.75, width: R * 1.5, height: R * 1.5 }
              "
              :class="layer === 'half' ? 'filled' : fill(animal) === 'full' ? 'filled' : 'empty'"
              :clip-path="layer === 'half' ? `url(#${clipId(animal.id)})` : undefined"
            />
          </template>
        </g>
        <circle v-if="fill(animal) === 'maybe'" :cx="x" :cy="y" r="4" class="dot" />
        <path v-if="animal.died" :d="`M${x - R - 4} ${y + R + 4}L${x + R + 4} ${y - R - 4}`" class="dead" />
        <path
          v-if="animal.id === proband"
          :d="`M${x - R - 18} ${y + R + 8}L${x - R - 5} ${y + R - 5}m-8 1l8 -1l-1 8`"
          class="arrow"
        />
        <text :x="x" :y="y + R + 15" class="number">{{ animal.number }}</text>
        <text v-if="animal.gene && fill(animal) === 'maybe'" :x="x" :y="y + R + 30" class="odds middle">
          {{ oddsWords(animal.gene.pCarries) }}
        </text>
        <text v-else-if="animal.name" :x="x" :y="y + R + 30" class="odds middle">{{ animal.name }}</text>
      </a>
    </svg>
  </div>
</template>

<style scoped>
.scroll {
  overflow: auto;
  max-height: 72vh;
  border: 1px solid var(--hair);
  background: rgb(var(--v-theme-surface));
}
svg {
  display: block;
  margin: 0 auto;
  color: rgb(var(--v-theme-on-surface));
}
.lines path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.3;
}
.lines .open path {
  stroke-dasharray: 4 4;
}
.evidence path {
  stroke: rgb(var(--v-theme-secondary));
  stroke-width: 3.5;
}
.scroll svg a.animal {
  color: inherit;
  text-decoration: none;
}
.empty {
  fill: rgb(var(--v-theme-surface));
  stroke: currentcolor;
  stroke-width: 1.8;
}
.filled {
  fill: currentcolor;
  stroke: currentcolor;
  stroke-width: 1.8;
}
.animal.path .empty,
.animal.path .filled {
  stroke: rgb(var(--v-theme-secondary));
  stroke-width: 3;
}
.dot,
.arrow {
  fill: currentcolor;
}
.arrow,
.dead {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.8;
}
text {
  fill: currentcolor;
  font-size: 13px;
}
.number {
  font-weight: 640;
  text-anchor: middle;
}
.rests .number {
  text-decoration: underline;
}
.odds {
  fill: var(--soft);
  font-size: 12px;
}
.middle {
  text-anchor: middle;
}
.animal:focus-visible .empty,
.animal:focus-visible .filled,
.animal:hover .empty,
.animal:hover .filled {
  stroke: rgb(var(--v-theme-secondary));
}
</style>
