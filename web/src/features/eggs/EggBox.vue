<script setup lang="ts">
import { computed, ref } from 'vue';
import { eggWords, STAGE_WORDS, type BoxEgg } from './egg-words.ts';
import { massWords } from '../../format/format.ts';

/**
 * The clutch as it lies in its box, drawn from above. Touch an egg to choose it; drag it, or use the arrow keys, to lay it
 * where it lies.
 */
const props = defineProps<{ eggs: readonly BoxEgg[]; mayChoose: boolean; mayMove: boolean }>();
const chosen = defineModel<ReadonlySet<number>>('chosen', { required: true });
const emit = defineEmits<{ move: [index: number, x: number, y: number] }>();

/** The box in drawing units; places are hundredths of it. */
const WIDTH = 520;
const HEIGHT = 250;
const DRAG_FROM_PX = 6;
const KEY_STEP = 2;
const LARGEST_G = 95;

const svg = ref<SVGSVGElement | null>(null);
const drag = ref<{ index: number; x: number; y: number; isMoved: boolean } | null>(null);
const placeOf = (egg: BoxEgg, index: number): { x: number; y: number } => {
  const { x, y } = drag.value?.index === index ? drag.value : egg;
  return { x: (x / 100) * WIDTH, y: (y / 100) * HEIGHT };
};
const sizeOf = (egg: BoxEgg): number => {
  const grams = egg.massG ?? (egg.verdict === 'slug' ? 45 : 80);
  return 0.72 + 0.28 * Math.min(1, grams / LARGEST_G);
};
const isOver = ({ state }: BoxEgg): boolean => state?.stage === 'died' || state?.stage === 'removed';
/** Eggs that stuck together are joined by lines, one to the next. */
const bonds = computed(() =>
  props.eggs.flatMap((egg, index) => {
    if (egg.stuck === null) return [];
    const other = props.eggs.findIndex((one, i) => i > index && one.stuck === egg.stuck);
    if (other < 0) return [];
    const a = placeOf(egg, index);
    const b = placeOf(props.eggs[other]!, other);
    return [{ key: `${index}-${other}`, x1: a.x, y1: a.y, x2: b.x, y2: b.y }];
  }),
);
const labelOf = (egg: BoxEgg): string => {
  const { state } = egg;
  if (state && state.stage !== 'in-egg') return state.young === 2 ? 'twins out' : STAGE_WORDS[state.stage];
  if (state?.worries.length) return state.worries.includes('collapse') ? 'collapsed' : 'mould';
  if (egg.verdict !== 'good') return egg.verdict;
  return egg.massG === null ? '' : massWords(egg.massG);
};

function toggle(index: number): void {
  if (!props.mayChoose) return;
  const next = new Set(chosen.value);
  if (!next.delete(index)) next.add(index);
  chosen.value = next;
}
function pointIn(event: PointerEvent): { x: number; y: number } {
  const box = svg.value!.getBoundingClientRect();
  const within = (share: number): number => Math.round(Math.min(94, Math.max(6, share * 100)) * 10) / 10;
  return {
    x: within((event.clientX - box.left) / box.width),
    y: within((event.clientY - box.top) / box.height),
  };
}
let from = { x: 0, y: 0 };
function grab(event: PointerEvent, index: number): void {
  if (!props.mayChoose) return;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  from = { x: event.clientX, y: event.clientY };
  const { x, y } = props.eggs[index]!;
  drag.value = { index, x, y, isMoved: false };
}
function pull(event: PointerEvent): void {
  if (!drag.value || !props.mayMove) return;
  const far = Math.hypot(event.clientX - from.x, event.clientY - from.y);
  if (drag.value.isMoved || far >= DRAG_FROM_PX)
    drag.value = { index: drag.value.index, ...pointIn(event), isMoved: true };
}
function letGo(): void {
  const held = drag.value;
  drag.value = null;
  if (!held) return;
  if (held.isMoved) emit('move', held.index, held.x, held.y);
  else toggle(held.index);
}
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-KEY_STEP, 0],
  ArrowRight: [KEY_STEP, 0],
  ArrowUp: [0, -KEY_STEP],
  ArrowDown: [0, KEY_STEP],
};
function onKey(event: KeyboardEvent, index: number): void {
  if (event.key === ' ' || event.key === 'Enter') {
    event.preventDefault();
    toggle(index);
  }
  const step = ARROWS[event.key];
  if (!step || !props.mayMove) return;
  event.preventDefault();
  const { x, y } = props.eggs[index]!;
  const within = (place: number): number => Math.min(94, Math.max(6, place));
  emit('move', index, within(x + step[0]), within(y + step[1]));
}
</script>

<template>
  <svg
    ref="svg"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    class="box"
    role="group"
    aria-label="The eggs as they lie in the box"
  >
    <defs>
      <pattern
        id="slug-hatch"
        width="9"
        height="9"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <line x1="0" y1="0" x2="0" y2="9" class="hatch" />
      </pattern>
    </defs>
    <rect x="3" y="3" :width="WIDTH - 6" :height="HEIGHT - 6" rx="26" class="tray" />
    <line
      v-for="bond in bonds"
      :key="bond.key"
      v-bind="{ x1: bond.x1, y1: bond.y1, x2: bond.x2, y2: bond.y2 }"
      class="bond"
    />
    <g
      v-for="(egg, index) in eggs"
      :key="egg.id ?? index"
      class="egg"
      :class="[egg.verdict, egg.state?.stage, { chosen: chosen.has(index), over: isOver(egg) }]"
      :transform="`translate(${placeOf(egg, index).x} ${placeOf(egg, index).y})`"
      :tabindex="mayChoose ? 0 : undefined"
      :role="mayChoose ? 'button' : 'img'"
      :aria-pressed="mayChoose ? chosen.has(index) : undefined"
      :aria-label="eggWords(egg, index + 1)"
      @pointerdown="grab($event, index)"
      @pointermove="pull"
      @pointerup="letGo"
      @pointercancel="drag = null"
      @keydown="onKey($event, index)"
    >
      <g :transform="`scale(${sizeOf(egg)})`">
        <ellipse rx="58" ry="44" class="ring" />
        <ellipse rx="51" ry="37" class="shell" />
        <ellipse v-if="egg.verdict === 'slug'" rx="51" ry="37" fill="url(#slug-hatch)" />
        <circle v-if="egg.marked" cx="0" cy="-27" r="4" class="dot" />
        <path
          v-if="egg.state?.stage === 'pipped' || egg.state?.wasCut"
          d="M-22,29 l9,-5 8,5 8,-5 8,5 9,-6"
          class="slit"
        />
        <path
          v-if="egg.state?.stage === 'out'"
          d="M-44,-19 l15,-8 13,9 14,-10 13,10 14,-9 19,8"
          class="slit"
        />
        <path v-if="isOver(egg)" d="M-38,-24 L38,24 M-38,24 L38,-24" class="slit struck" />
      </g>
      <text y="-1" class="number">{{ index + 1 }}</text>
      <text y="17" class="label">{{ labelOf(egg) }}</text>
    </g>
  </svg>
</template>

<style scoped>
.box {
  display: block;
  width: 100%;
  user-select: none;
}
.tray {
  fill: rgb(var(--v-theme-surface-light));
  stroke: var(--soft);
  stroke-width: 2;
}
.bond {
  stroke: var(--soft);
  stroke-width: 12;
  stroke-linecap: round;
  opacity: 0.55;
}
.egg {
  cursor: pointer;
  outline: none;
  /* A finger that drags an egg does not scroll the page. */
  touch-action: none;
}
.shell {
  fill: rgb(var(--v-theme-surface));
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 2;
}
.doubtful .shell {
  stroke-dasharray: 7 5;
}
.out .shell,
.over .shell {
  fill: none;
  stroke-dasharray: 3 5;
}
.hatch {
  stroke: var(--soft);
  stroke-width: 2;
  opacity: 0.5;
}
/* Takes the touch over the whole egg, an empty shell too. */
.ring {
  fill: none;
  pointer-events: all;
}
.chosen .ring {
  fill: color-mix(in srgb, rgb(var(--v-theme-secondary)) 30%, transparent);
  stroke: rgb(var(--v-theme-secondary));
  stroke-width: 5;
}
.egg:focus-visible .ring {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 5;
}
.dot {
  fill: rgb(var(--v-theme-on-surface));
}
.slit {
  fill: none;
  stroke: rgb(var(--v-theme-secondary));
  stroke-width: 4;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.struck {
  opacity: 0.4;
}
text {
  fill: rgb(var(--v-theme-on-surface));
  text-anchor: middle;
  font-size: 15px;
  pointer-events: none;
}
.number {
  font-size: 20px;
  font-weight: 700;
}
@media (width < 600px) {
  text {
    font-size: 19px;
  }
  .number {
    font-size: 25px;
  }
}
</style>
