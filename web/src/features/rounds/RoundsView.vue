<script setup lang="ts">
import { IN_QUARANTINE, type RoundAnimal } from '@karyotome/contract';
import { QUARANTINE_PRACTICE } from '@karyotome/words';
import { mdiArrowLeft, mdiArrowRight, mdiQrcodeScan } from '@mdi/js';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { momentWords } from '../../format/format.ts';
import { useRound } from '../../offline/useRound.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { isTyping } from '../../ui/keys.ts';
import StateBlock from '../../ui/StateBlock.vue';
import { animalOf } from './animal-of-code.ts';
import FeedRackDialog from './FeedRackDialog.vue';
import NoteDialog from './NoteDialog.vue';
import QueueStatus from './QueueStatus.vue';
import RackList from './RackList.vue';
import { noted, ROUND_ACTS, weighed, type RoundAct } from './round-acts.ts';
import RoundStop from './RoundStop.vue';
import { useEntering } from './useEntering.ts';
import { useLogged, type Logged } from './useLogged.ts';
import { rackTitle, useRoundPlace } from './useRoundPlace.ts';
import { useRackFeeding } from './useRackFeeding.ts';
import { useScreenOn } from './useScreenOn.ts';
import WeighDialog from './WeighDialog.vue';

const ScanDialog = defineAsyncComponent(() => import('../../ui/ScanDialog.vue'));
const { data, status, error, refetch, isOld } = useRound();
const session = useSession();
const notices = useNotices();
const entering = useEntering();
const { loggedOf, takeBack } = useLogged();
const { rack, stops, index, stop, next, enter, step, leave, goTo } = useRoundPlace(data);
const goesOn = useLocalStorage('karyotome.round.advances', true);
const dialog = ref<'weigh' | 'note' | 'scan' | null>(null);
/** The last thing that was entered, until the next: the way back is where the eye is. */
const last = ref<{ animal: RoundAnimal; logged: Logged } | null>(null);
const { feeding, enterMeals } = useRackFeeding();
useScreenOn(() => rack.value !== null);
const done = computed(() => (stop.value ? loggedOf(stop.value.animal) : []));

async function enterOne(animal: RoundAnimal, one: ReturnType<RoundAct['enter']>): Promise<void> {
  const logged = one && (await entering.enter(animal, one));
  if (logged) last.value = { animal, logged };
}
async function act(chosen: RoundAct): Promise<void> {
  const { animal } = stop.value!;
  // The next tub is there at once; the hand does not wait for the device to write.
  const writing = enterOne(animal, chosen.enter(animal));
  if (chosen.goesOn && goesOn.value && next.value) step(1);
  await writing;
}
async function keepWeight(massG: number): Promise<void> {
  dialog.value = null;
  await enterOne(stop.value!.animal, weighed(massG));
}
async function keepNote(text: string): Promise<void> {
  dialog.value = null;
  await enterOne(stop.value!.animal, noted(text));
}
async function keepPhoto(file: File): Promise<void> {
  const { animal } = stop.value!;
  const logged = await entering.enterPhoto(animal, file);
  if (logged) last.value = { animal, logged };
}
async function undo(animal: RoundAnimal, logged: Logged): Promise<void> {
  if (last.value?.logged.key === logged.key) last.value = null;
  await takeBack(animal, logged);
}
async function undoLast(): Promise<void> {
  if (last.value) await undo(last.value.animal, last.value.logged);
}
function keepGoing(value: boolean | null): void {
  goesOn.value = value === true;
}
function found(text: string): void {
  dialog.value = null;
  if (!goTo(animalOf(text)!)) notices.warn('This label is of an animal that is not in the round.');
}
function onKey(event: KeyboardEvent): void {
  if (!stop.value || dialog.value || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target))
    return;
  if (document.querySelector('.v-dialog.v-overlay--active')) return;
  const key = event.key.toLowerCase();
  if (key === 'arrowright' || (key === 'enter' && event.target === document.body)) step(1);
  else if (key === 'arrowleft') step(-1);
  else if (key === 'escape') leave();
  else if (session.mayRecord) {
    const chosen = ROUND_ACTS.find((one) => one.key === key);
    if (chosen) void act(chosen);
    else if (key === 'w') dialog.value = 'weigh';
    else if (key === 'o') dialog.value = 'note';
    else if (key === 'u') void undoLast();
    else return;
  } else return;
  event.preventDefault();
}
useEventListener('keydown', onKey);
</script>

<template>
  <div class="place rounds" :class="{ walking: rack }">
    <div class="place-head">
      <h1>{{ rack ? rackTitle(rack) : 'Rounds' }}</h1>
      <QueueStatus />
      <v-btn variant="outlined" :prepend-icon="mdiQrcodeScan" @click="dialog = 'scan'">Scan</v-btn>
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.racks.length === 0"
      empty-title="No animal to go round to"
      empty-text="Animals in their tubs appear here, rack after rack, to be logged by one touch each."
      @retry="refetch()"
    >
      <template v-if="session.mayBreed" #first
        ><v-btn color="primary" to="/animals?add=1">Add an animal</v-btn></template
      >
      <template v-if="data">
        <v-alert v-if="isOld" type="info" variant="tonal" :icon="false" density="compact" class="mb-3">
          No connection: this is the round as it was read {{ momentWords(data.at) }}. What you enter is kept
          on this device, and sent by itself.
        </v-alert>
        <RackList
          v-if="!rack"
          :view="data"
          :may-record="session.mayRecord"
          :logged-of="loggedOf"
          @enter="enter"
          @feed="(one, offers) => (feeding = { title: `Feed ${rackTitle(one)}`, offers })"
        />
        <template v-else-if="stop && rack">
          <div class="way">
            <v-btn variant="text" @click="leave">All racks</v-btn>
            <span class="num">{{ index + 1 }} of {{ stops.length }}</span>
            <v-progress-linear
              :model-value="((index + 1) / stops.length) * 100"
              aria-label="How far this round is"
            />
          </div>
          <p v-if="rack.id === IN_QUARANTINE" class="small soft mb-3">{{ QUARANTINE_PRACTICE }}</p>
          <p v-if="last" class="last" role="status">
            <span>{{ last.animal.number }}: {{ last.logged.text }}</span>
            <v-btn size="small" variant="tonal" @click="undoLast">Undo<kbd class="hint">u</kbd></v-btn>
          </p>
          <RoundStop
            :stop="stop"
            :done="done"
            :may-record="session.mayRecord"
            @act="act"
            @weigh="dialog = 'weigh'"
            @note="dialog = 'note'"
            @photo="keepPhoto"
            @undo="undo(stop.animal, $event)"
          />
          <v-switch
            :model-value="goesOn"
            label="After a meal, on to the next tub"
            color="primary"
            density="compact"
            hide-details
            @update:model-value="keepGoing"
          />
          <nav class="steps" aria-label="Tubs">
            <v-btn
              variant="outlined"
              :prepend-icon="mdiArrowLeft"
              :disabled="index === 0"
              size="large"
              @click="step(-1)"
              >Back</v-btn
            >
            <v-btn
              color="primary"
              variant="flat"
              :append-icon="mdiArrowRight"
              size="large"
              @click="step(1)"
              >{{ next ? `Next: ${next.place || next.animal.number}` : 'Done' }}</v-btn
            >
          </nav>
        </template>
      </template>
    </StateBlock>
    <FeedRackDialog v-if="feeding" v-bind="feeding" @close="feeding = null" @enter="enterMeals" />
    <WeighDialog
      v-if="dialog === 'weigh' && stop"
      :animal="stop.animal"
      @keep="keepWeight"
      @close="dialog = null"
    />
    <NoteDialog
      v-if="dialog === 'note' && stop"
      :animal="stop.animal"
      @keep="keepNote"
      @close="dialog = null"
    />
    <ScanDialog
      v-if="dialog === 'scan'"
      title="Scan a label"
      carrier="the label"
      otherwise="type the number"
      :accepts="(text: string) => animalOf(text) !== null"
      @found="found"
      @close="dialog = null"
    />
  </div>
</template>

<style scoped>
.walking {
  max-width: 820px;
}
.way {
  display: grid;
  grid-template-columns: auto auto 1fr;
  align-items: center;
  gap: 12px;
  margin-bottom: 10px;
}
.last {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 44px;
  margin-bottom: 10px;
  padding: 4px 14px;
  border-radius: 10px;
  background: rgb(var(--v-theme-surface-light));
}
.hint {
  margin-left: 8px;
  font: inherit;
  opacity: 0.75;
}
.steps {
  position: sticky;
  bottom: 0;
  display: grid;
  grid-template-columns: 1fr 2fr;
  gap: 10px;
  padding: 10px 0;
  background: rgb(var(--v-theme-background));
}
.steps :deep(.v-btn) {
  min-height: 60px !important;
}
@media (width < 600px) {
  .steps {
    bottom: 60px;
  }
}
@media (pointer: coarse), (width < 600px) {
  .hint {
    display: none;
  }
}
</style>
