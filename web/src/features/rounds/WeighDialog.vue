<script setup lang="ts">
import type { RoundAnimal } from '@karyotome/contract';
import { weightDoubt } from '@karyotome/core';
import { weightDoubtWords } from '@karyotome/words';
import { mdiBackspaceOutline } from '@mdi/js';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, onMounted, ref, watch } from 'vue';
import { agoWords, massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { BAUD_RATES, hasSerial, serialScale, simulatedScale } from './scale/sources.ts';
import { useScale } from './scale/useScale.ts';

/** A weight, by keypad or from a scale, held against what was expected before it is kept. */
const props = defineProps<{ animal: RoundAnimal }>();
const emit = defineEmits<{ keep: [massG: number]; close: [] }>();
const typed = ref('');
/** The scale that is connected again by itself: `simulated`, or `serial:` with its baud rate. */
const kept = useLocalStorage<string | null>('karyotome.scale', null);
const baud = ref<number>(Number(kept.value?.split(':')[1]) || BAUD_RATES[0]);
const unit = computed(() => reader().massUnit);
const scale = useScale((steadyG) => (typed.value = String(unit.value.toShown(steadyG))));
const massG = computed(() => {
  const value = unit.value.toStored(Number(typed.value));
  return typed.value !== '' && value >= 1 && value <= 20_000 ? value : null;
});
const doubt = computed(() => (massG.value === null ? null : weightDoubt(massG.value, props.animal.expected)));
/** The doubt was read: the second press keeps it. */
const isSure = ref(false);
watch(typed, () => (isSure.value = false));

function press(key: string): void {
  if (key === 'back') typed.value = typed.value.slice(0, -1);
  else if (key !== '.' || !typed.value.includes('.')) typed.value = (typed.value + key).slice(0, 7);
}
function keep(): void {
  if (massG.value === null) return;
  if (doubt.value && !isSure.value) isSure.value = true;
  else emit('keep', massG.value);
}
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (/^[0-9.]$/.test(event.key)) press(event.key);
  else if (event.key === ',') press('.');
  else if (event.key === 'Backspace') press('back');
  else if (event.key === 'Enter') keep();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
async function useSerial(): Promise<void> {
  await scale.connect(serialScale(baud.value));
  if (scale.name.value) kept.value = `serial:${baud.value}`;
}
async function simulate(): Promise<void> {
  await scale.connect(simulatedScale(() => props.animal.expected?.midG ?? props.animal.massG ?? 80));
  kept.value = 'simulated';
}
async function stop(): Promise<void> {
  await scale.disconnect();
  kept.value = null;
}
onMounted(() => {
  if (kept.value === 'simulated') void simulate();
  else if (kept.value && hasSerial()) void useSerial();
});
useEventListener('keydown', onKey, { capture: true });
const rates: number[] = [...BAUD_RATES];
const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', 'back'];
</script>

<template>
  <v-dialog :model-value="true" max-width="420" @update:model-value="emit('close')">
    <v-card :title="`Weigh ${animal.number}`">
      <v-card-text class="stack pad">
        <p class="small soft">
          <template v-if="animal.massG !== null">
            {{ massWords(animal.massG) }} {{ agoWords(animal.weighedOn!) }}.
          </template>
          <template v-if="animal.expected">
            Expected
            {{ reader().massSpan(Math.round(animal.expected.lowG), Math.round(animal.expected.highG)) }}.
          </template>
        </p>
        <output class="shown" aria-label="Weight entered"
          >{{ typed || '0' }} <span class="soft">{{ unit.symbol }}</span></output
        >
        <p v-if="scale.name.value" class="small" role="status">
          {{ scale.name.value }}:
          {{ scale.shown.value === null ? 'waiting' : massWords(scale.shown.value) }}
        </p>
        <p v-if="scale.problem.value" class="small problem">{{ scale.problem.value }}</p>
        <v-alert v-if="doubt" type="warning" variant="tonal" :icon="false" density="compact">{{
          weightDoubtWords(doubt, reader())
        }}</v-alert>
        <div class="keys" role="group" aria-label="Keypad">
          <v-btn
            v-for="key in KEYS"
            :key="key"
            variant="outlined"
            size="large"
            :aria-label="key === 'back' ? 'Delete the last digit' : key"
            @click="press(key)"
          >
            <v-icon v-if="key === 'back'" :icon="mdiBackspaceOutline" />
            <template v-else>{{ key }}</template>
          </v-btn>
        </div>
        <div class="row">
          <template v-if="scale.name.value">
            <v-btn size="small" variant="text" @click="stop">Without the scale</v-btn>
          </template>
          <template v-else>
            <v-btn v-if="hasSerial()" size="small" variant="text" @click="useSerial">Read a scale</v-btn>
            <v-select
              v-if="hasSerial()"
              v-model="baud"
              :items="rates"
              label="Baud"
              density="compact"
              class="baud"
            />
            <v-btn size="small" variant="text" @click="simulate">Simulated scale</v-btn>
          </template>
        </div>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="emit('close')">Leave</v-btn>
        <v-spacer />
        <v-btn color="primary" variant="flat" size="large" :disabled="massG === null" @click="keep">{{
          isSure ? 'Keep anyway' : 'Keep'
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.pad {
  gap: 10px;
}
.shown {
  font-size: 2.6rem;
  font-weight: 640;
  font-variant-numeric: tabular-nums;
  text-align: right;
}
.keys {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
.keys :deep(.v-btn) {
  min-height: 56px !important;
  font-size: 1.3rem;
}
.baud {
  max-width: 120px;
}
.problem {
  color: rgb(var(--v-theme-error));
}
</style>
