<script setup lang="ts">
import type { EggInput } from '@karyotome/contract';
import { boxPlaces, EGG_VERDICTS, type EggVerdict } from '@karyotome/core';
import { computed, ref, watch } from 'vue';
import { capital, stickTogether, VERDICT_WORDS } from './egg-words.ts';
import { massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';

/** Lay day, with wet hands: choose eggs, say what they are like; weigh one after another without looking up. */
const props = defineProps<{ eggs: readonly EggInput[]; mayUndo: boolean }>();
const chosen = defineModel<ReadonlySet<number>>('chosen', { required: true });
const emit = defineEmits<{ change: [eggs: EggInput[]]; undo: [] }>();

const hasChosen = computed(() => chosen.value.size > 0);
const picked = computed(() => props.eggs.filter((_, i) => chosen.value.has(i)));
function set(values: Partial<EggInput>): void {
  emit(
    'change',
    props.eggs.map((egg, i) => (chosen.value.has(i) ? { ...egg, ...values } : egg)),
  );
}
function judge(verdict: EggVerdict): void {
  set({ verdict });
  chosen.value = new Set();
}
function mark(): void {
  set({ marked: !picked.value.every(({ marked }) => marked) });
  chosen.value = new Set();
}
const areStuck = computed(
  () =>
    picked.value.length > 0 &&
    picked.value.every(({ stuck }) => stuck !== null && stuck === picked.value[0]!.stuck),
);
function stick(): void {
  emit('change', stickTogether(props.eggs, chosen.value, !areStuck.value));
  chosen.value = new Set();
}
const isAll = computed(() => chosen.value.size === props.eggs.length);
function chooseAll(): void {
  chosen.value = isAll.value ? new Set() : new Set(props.eggs.keys());
}

function add(): void {
  const place = boxPlaces(props.eggs.length + 1).at(-1)!;
  emit('change', [...props.eggs, { verdict: 'good', massG: null, stuck: null, marked: false, ...place }]);
}
function takeAway(): void {
  emit(
    'change',
    stickTogether(
      props.eggs.filter((_, i) => !chosen.value.has(i)),
      new Set(),
      false,
    ),
  );
  chosen.value = new Set();
}

/** The egg on the scales: the chosen one, or the first that was not weighed. */
const onScales = computed(() => {
  if (chosen.value.size === 1) return [...chosen.value][0]!;
  const unweighed = props.eggs.findIndex(({ massG }) => massG === null);
  return unweighed;
});
const unit = computed(() => reader().massUnit);
/** An egg of a ball python weighs something between; a slip of the hand does not. Common practice, no source. */
const EGG_G = { least: 5, most: 300 } as const;
const typed = ref('');
watch(
  onScales,
  (index) => {
    const massG = props.eggs[index]?.massG ?? null;
    typed.value = massG === null ? '' : String(unit.value.toShown(massG));
  },
  { immediate: true },
);
const massG = computed(() => unit.value.toStored(Number(typed.value.replace(',', '.'))));
const wrongWeight = computed(() => {
  if (typed.value.trim() === '') return [];
  if (massG.value >= EGG_G.least && massG.value <= EGG_G.most) return [];
  return [`must be between ${massWords(EGG_G.least)} and ${massWords(EGG_G.most)}`];
});
function weigh(): void {
  const index = onScales.value;
  if (index < 0 || typed.value.trim() === '' || wrongWeight.value.length > 0) return;
  const weighedG = massG.value;
  emit(
    'change',
    props.eggs.map((egg, i) => (i === index ? { ...egg, massG: weighedG } : egg)),
  );
  // On to the next that lies unweighed, else the next in the row.
  const next = props.eggs.findIndex(({ massG: known }, i) => known === null && i > index);
  chosen.value = next >= 0 ? new Set([next]) : new Set();
  typed.value = '';
}
</script>

<template>
  <div class="panel">
    <div class="row">
      <v-btn
        v-for="verdict in EGG_VERDICTS"
        :key="verdict"
        variant="outlined"
        size="large"
        :disabled="!hasChosen"
        @click="judge(verdict)"
        >{{ capital(VERDICT_WORDS[verdict]) }}</v-btn
      >
      <v-btn variant="outlined" size="large" :disabled="!hasChosen" @click="mark">Top marked</v-btn>
      <v-btn variant="outlined" size="large" :disabled="chosen.size < 2 && !areStuck" @click="stick">{{
        areStuck ? 'Not stuck' : 'Stuck together'
      }}</v-btn>
    </div>
    <form class="scales" novalidate @submit.prevent="weigh">
      <v-text-field
        v-model="typed"
        :label="
          onScales >= 0
            ? `Egg ${onScales + 1} weighs, ${unit.symbol}`
            : 'All eggs are weighed: touch one to change it'
        "
        inputmode="decimal"
        :disabled="onScales < 0"
        :error-messages="wrongWeight"
      />
      <v-btn type="submit" size="large" color="primary" variant="flat" :disabled="onScales < 0">{{
        onScales >= 0 ? 'Weighed' : 'Done'
      }}</v-btn>
    </form>
    <div class="row">
      <v-btn variant="text" @click="chooseAll">{{ isAll ? 'None' : 'All eggs' }}</v-btn>
      <v-btn variant="text" @click="add">Add an egg</v-btn>
      <v-btn variant="text" :disabled="!hasChosen || isAll" @click="takeAway">Take away</v-btn>
      <v-spacer />
      <v-btn variant="text" :disabled="!mayUndo" @click="emit('undo')">Undo</v-btn>
    </div>
    <p class="small soft">
      Touch eggs to choose them, drag them to where they lie. Mark the top of each and never roll one: the
      embryo drowns if it is turned. Eggs that stuck together stay together.
    </p>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 12px;
}
.scales {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: start;
  gap: 8px;
}
</style>
