<script setup lang="ts">
import type { HeatZoneView, RackView } from '@karyotome/contract';
import { mdiThermometer } from '@mdi/js';
import { heatFaultWords } from '@karyotome/words';
import { computed, ref } from 'vue';
import { massWords, temperatureWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useSession } from '../../stores/session.ts';
import TubAnimal from './TubAnimal.vue';

/** A rack as it stands before you: levels from the top, tubs from the left, each with who lives in it. */
const session = useSession();
const props = defineProps<{
  rack: RackView;
  mayHouse: boolean;
  /** Animals in the hand, by id. */
  held: readonly string[];
  /** Tubs that are looked for shine, the others fade. */
  show: 'all' | 'free' | 'advised' | 'clean';
}>();
const emit = defineEmits<{
  delete: [];
  edit: [];
  zone: [HeatZoneView | null];
  check: [HeatZoneView];
  take: [animalId: string];
  put: [ids: readonly string[], tub: RackView['tubs'][number]];
}>();
type Tub = RackView['tubs'][number];
function isShown(tub: Tub): boolean {
  if (props.show === 'free') return tub.animals.length === 0;
  if (props.show === 'advised') return tub.animals.some(({ verdict }) => verdict !== 'none');
  if (props.show === 'clean') return tub.animals.some(({ cleanDue }) => cleanDue);
  return true;
}
/** One in the hand can change places with another; several need free tubs. */
const takes = ({ animals }: Tub): boolean =>
  props.held.length > 0 &&
  (animals.length === 0 || (props.held.length === 1 && !animals.some(({ id }) => props.held.includes(id))));
const over = ref<string | null>(null);
function drag(event: DragEvent, id: string): void {
  // One of several in the hand brings the others along.
  const ids = props.held.includes(id) ? props.held : [id];
  event.dataTransfer!.setData('text/plain', ids.join());
  event.dataTransfer!.effectAllowed = 'move';
}
function drop(event: DragEvent, tub: Tub): void {
  over.value = null;
  const ids = (event.dataTransfer!.getData('text/plain') || '').split(',').filter((id) => id !== '');
  if (ids.length > 0) emit('put', ids, tub);
}
function heatWords({ lastCheck, faults, warmC, coolC }: HeatZoneView): string {
  if (faults[0]) return heatFaultWords(faults[0], reader());
  const both = (warm: number, cool: number): string =>
    `${temperatureWords(warm)} / ${temperatureWords(cool)}`;
  return lastCheck ? both(lastCheck.warmC, lastCheck.coolC) : `${both(warmC, coolC)}, not checked`;
}
const levels = computed(() =>
  Array.from({ length: props.rack.levels }, (_, i) => ({
    level: i + 1,
    tubs: props.rack.tubs.filter((tub) => tub.level === i + 1),
  })),
);
const range = computed(() => {
  const { minG, maxG } = props.rack.step;
  return maxG === null ? `from ${massWords(minG)}` : reader().massSpan(minG, maxG);
});
const isEmpty = computed(() => props.rack.tubs.every((tub) => tub.animals.length === 0));
</script>

<template>
  <v-card class="rack">
    <div class="row">
      <h3>{{ rack.name }}</h3>
      <span class="small soft">{{ rack.step.name }}, {{ range }}</span>
      <v-spacer />
      <template v-if="mayHouse">
        <v-btn size="small" variant="text" :aria-label="`Edit ${rack.name}`" @click="emit('edit')"
          >Edit</v-btn
        >
        <v-btn v-if="isEmpty && session.mayDestroy" size="small" variant="text" @click="emit('delete')"
          >Delete</v-btn
        >
        <v-btn
          v-if="session.mayManage"
          size="small"
          variant="text"
          :aria-label="`History of ${rack.name}`"
          :to="{ path: '/settings/history', query: { rackId: rack.id } }"
          >History</v-btn
        >
      </template>
    </div>
    <div class="row heat">
      <v-btn
        v-for="zone in rack.zones"
        :key="zone.id"
        size="small"
        :variant="zone.faults.length > 0 ? 'tonal' : 'text'"
        :color="zone.faults.length > 0 ? 'error' : undefined"
        :prepend-icon="mdiThermometer"
        @click="session.mayRecord ? emit('check', zone) : undefined"
        >{{ zone.name }}: {{ heatWords(zone) }}</v-btn
      >
      <v-btn
        v-if="mayHouse"
        size="small"
        variant="text"
        class="soft"
        :aria-label="`${rack.name}: heat zones`"
        @click="emit('zone', rack.zones[0] ?? null)"
        >{{ rack.zones.length === 0 ? 'Heat zone…' : 'Zones…' }}</v-btn
      >
    </div>
    <div class="levels">
      <div
        v-for="{ level, tubs } in levels"
        :key="level"
        class="level"
        :style="{ gridTemplateColumns: `22px repeat(${rack.tubsPerLevel}, minmax(98px, 1fr))` }"
      >
        <span class="num soft small">{{ level }}</span>
        <div
          v-for="tub in tubs"
          :key="tub.id"
          class="tub"
          :class="{ free: tub.animals.length === 0, faded: !isShown(tub), over: over === tub.id }"
          @dragover.prevent="over = tub.id"
          @dragleave="over = null"
          @drop.prevent="drop($event, tub)"
        >
          <TubAnimal
            v-for="animal in tub.animals"
            :key="animal.id"
            :animal="animal"
            :may-house="mayHouse"
            :is-held="held.includes(animal.id)"
            @dragstart="drag($event, animal.id)"
            @take="emit('take', animal.id)"
          />
          <button
            v-if="takes(tub)"
            type="button"
            class="here small"
            :aria-label="`Put into ${rack.name} ${tub.level}-${tub.slot}${tub.animals[0] ? `, ${tub.animals[0].number} changes places` : ''}`"
            @click="emit('put', held, tub)"
          >
            {{ tub.animals.length > 0 ? 'change places' : 'put here' }}
          </button>
          <span v-else-if="tub.animals.length === 0" class="small soft">free</span>
        </div>
      </div>
    </div>
  </v-card>
</template>

<style scoped>
.rack {
  padding: 14px 16px;
}
.levels {
  display: grid;
  gap: 4px;
  margin-top: 10px;
  overflow-x: auto;
}
.level {
  display: grid;
  gap: 4px;
  align-items: stretch;
}
.level > .num {
  align-self: center;
}
.tub {
  min-height: 48px;
  padding: 4px 8px;
  border-radius: 4px 4px 10px 10px;
  background: rgb(var(--v-theme-surface-variant));
  color: rgb(var(--v-theme-on-surface-variant));
}
.free {
  display: grid;
  place-items: center;
  background: transparent;
  border: 1.5px dashed var(--hair);
}
.faded {
  opacity: 0.3;
}
.over {
  outline: 2px solid rgb(var(--v-theme-secondary));
}
.heat {
  gap: 2px 6px;
}
.here {
  width: 100%;
  min-height: 32px;
  border: 1.5px solid rgb(var(--v-theme-primary));
  border-radius: 6px;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
</style>
