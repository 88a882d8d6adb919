<script setup lang="ts">
import type { ClutchView } from '@karyotome/contract';
import { alarmWords, CUTTING_CAUTION, cuttingWords } from '@karyotome/words';
import { mdiPencilOutline, mdiPrinterOutline } from '@mdi/js';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { dayWords, oddsWords, temperatureWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import ClimateChart from '../climate/ClimateChart.vue';
import ClockCard from './ClockCard.vue';
import ClutchDialog from './ClutchDialog.vue';
import EggBox from './EggBox.vue';
import EggLog from './EggLog.vue';
import EventPanel from './EventPanel.vue';
import HatchDialog from './HatchDialog.vue';
import LayPanel from './LayPanel.vue';
import type { BoxEgg } from './egg-words.ts';
import { useBox } from './useBox.ts';
import { useEggEvents } from './useEggEvents.ts';

/** One clutch from lay day to the last egg: the box, the lamp, the hatching, the clock. */
const props = defineProps<{ clutch: ClutchView }>();
const session = useSession();
const notices = useNotices();
const router = useRouter();
const box = useBox(() => props.clutch);
const { chosen, note, takeBack, busy } = useEggEvents(
  () => props.clutch,
  () => box.eggs.value,
);
const isDone = computed(() => props.clutch.hatchedOn !== null);
const mayChange = computed(() => session.mayRecord && !isDone.value);

/** On lay day eggs are laid down, near the end they hatch, between they are looked at. */
const LAY_DAYS = 2;
const HATCH_DAY = 52;
const { day } = props.clutch.clock;
const phase = ref<'lay' | 'check' | 'hatch'>(day <= LAY_DAYS ? 'lay' : day >= HATCH_DAY ? 'hatch' : 'check');
const PHASES = [
  { value: 'lay', title: 'Lay down' },
  { value: 'check', title: 'Look at' },
  { value: 'hatch', title: 'Hatch' },
] as const;

const stateOf = (id: string | undefined) => props.clutch.eggs.find((egg) => egg.id === id)?.state ?? null;
const eggs = computed<BoxEgg[]>(() => box.eggs.value.map((egg) => ({ ...egg, state: stateOf(egg.id) })));
const unpipped = computed<ReadonlySet<number>>(
  () =>
    new Set(
      eggs.value.flatMap(({ verdict, state }, i) =>
        verdict !== 'slug' && state?.stage === 'in-egg' ? [i] : [],
      ),
    ),
);
const waiting = computed(
  () =>
    eggs.value.filter(
      ({ verdict, state }) => verdict !== 'slug' && (state?.stage === 'in-egg' || state?.stage === 'pipped'),
    ).length,
);
function move(index: number, x: number, y: number): void {
  box.change(box.eggs.value.map((egg, i) => (i === index ? { ...egg, x, y } : egg)));
}

const printing = useWrite(api.makeClutchCard);
async function print(): Promise<void> {
  const sent = await printing.run(props.clutch.id);
  if (!sent) return notices.warn(printing.message.value ?? 'The card could not be made');
  notices.say('The card is made and kept');
  window.open(api.clutchCardUrl(sent.value.id), '_blank', 'noopener');
}
const editing = ref(false);
const hatching = ref(false);
const counts = computed(() => {
  const { good, slugs, pipped, out, died, young } = props.clutch.counts;
  return [
    `${good} good`,
    ...(slugs > 0 ? [`${slugs} slug${slugs > 1 ? 's' : ''}`] : []),
    ...(pipped > 0 ? [`${pipped} pipped`] : []),
    ...(out > 0 ? [`${out} out${young > out ? `, ${young} young` : ''}`] : []),
    ...(died > 0 ? [`${died} died`] : []),
  ].join(', ');
});
async function hatched(): Promise<void> {
  hatching.value = false;
  await router.push(`/bench/${props.clutch.id}`);
}
</script>

<template>
  <div class="place-head">
    <h1>Clutch {{ clutch.name }}</h1>
    <span class="soft facts">
      <router-link :to="`/animals/${clutch.dam.id}`">{{ clutch.dam.number }}</router-link>
      {{ clutch.dam.name }} ×
      <template v-for="(sire, index) in clutch.sires" :key="sire.id"
        ><template v-if="index > 0"> or </template
        ><router-link :to="`/animals/${sire.id}`">{{ sire.number }}</router-link
        ><template v-if="sire.p < 1">
          ({{ sire.stored ? 'stored, ' : '' }}{{ oddsWords(sire.p) }})</template
        ></template
      >. Laid {{ dayWords(clutch.laidOn) }},
      {{
        clutch.incubator
          ? clutch.incubator.name
          : clutch.incubationC === null
            ? 'no incubator named'
            : temperatureWords(clutch.incubationC)
      }}
    </span>
    <v-btn variant="text" :prepend-icon="mdiPrinterOutline" :loading="printing.busy.value" @click="print"
      >Card</v-btn
    >
    <v-btn
      v-if="session.mayManage"
      variant="text"
      :to="{ path: '/settings/history', query: { clutchId: clutch.id } }"
      >History</v-btn
    >
    <v-btn v-if="session.mayBreed" variant="text" :prepend-icon="mdiPencilOutline" @click="editing = true"
      >Change</v-btn
    >
    <v-btn v-if="isDone" color="primary" :to="`/bench/${clutch.id}`">To the young</v-btn>
    <v-btn v-else-if="session.mayBreed" color="primary" @click="hatching = true">Hatched…</v-btn>
  </div>
  <v-alert
    v-for="alarm in clutch.incubator?.alarms ?? []"
    :key="alarm.code"
    type="warning"
    variant="tonal"
    :icon="false"
    class="mb-4"
    ><router-link to="/season/incubators">{{ clutch.incubator!.name }}</router-link
    >: {{ alarmWords(alarm, reader()) }}</v-alert
  >
  <div class="desk">
    <v-card class="work">
      <div class="row">
        <strong>{{ counts }}</strong>
        <v-spacer />
        <span v-if="mayChange" class="small soft" role="status">{{
          box.isSaved.value ? 'Saved' : (box.problem.value ?? 'Saving…')
        }}</span>
        <v-btn
          v-if="!box.isSaved.value && box.problem.value && !box.isStale.value"
          size="small"
          variant="outlined"
          @click="box.saveMine"
          >Try again</v-btn
        >
      </div>
      <v-alert v-if="box.isStale.value" type="warning" variant="tonal" :icon="false">
        Somebody else changed this box while you did.
        <template #append>
          <v-btn variant="text" @click="box.takeTheirs">Show theirs</v-btn>
          <v-btn variant="text" @click="box.saveMine">Keep mine</v-btn>
        </template>
      </v-alert>
      <EggBox
        v-model:chosen="chosen"
        :eggs="eggs"
        :may-choose="mayChange"
        :may-move="mayChange && phase === 'lay'"
        @move="move"
      />
      <template v-if="mayChange">
        <v-btn-toggle v-model="phase" class="phases" aria-label="What is done now">
          <v-btn v-for="entry in PHASES" :key="entry.value" :value="entry.value">{{ entry.title }}</v-btn>
        </v-btn-toggle>
        <LayPanel
          v-if="phase === 'lay'"
          v-model:chosen="chosen"
          :eggs="box.eggs.value"
          :may-undo="box.mayUndo.value"
          @change="box.change"
          @undo="box.undo"
        />
        <EventPanel
          v-else
          :key="phase"
          :phase="phase"
          :chosen="chosen"
          :busy="busy"
          :cut-words="cuttingWords(clutch.clock.cutting)"
          :cut-caution="clutch.clock.cutOn ? CUTTING_CAUTION : ''"
          :unpipped="unpipped"
          @note="note"
          @choose="chosen = $event"
        />
      </template>
    </v-card>
    <aside class="stack">
      <ClockCard :clutch="clutch" />
      <v-card v-if="clutch.means.length > 1" class="part">
        <h2>Temperature</h2>
        <ClimateChart
          :points="clutch.means.map((mean) => ({ x: mean.day, celsius: mean.celsius }))"
          :set-c="clutch.incubationC"
          x-name="day"
        />
      </v-card>
      <EggLog :clutch="clutch" :may-change="mayChange" @take-back="takeBack" />
    </aside>
  </div>
  <ClutchDialog v-if="editing" :clutch="clutch" @close="editing = false" />
  <HatchDialog
    v-if="hatching"
    :clutch="clutch"
    :young="clutch.counts.young || clutch.counts.good"
    :followed="clutch.counts.young > 0"
    :waiting="waiting"
    @close="hatching = false"
    @done="hatched"
  />
</template>

<style scoped>
.facts {
  margin-right: auto;
}
.place-head h1 {
  margin-right: 0;
}
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 390px;
  align-items: start;
  gap: 16px;
}
.work,
.part {
  display: grid;
  gap: 12px;
  padding: 16px;
}
.phases {
  width: 100%;
}
.phases :deep(.v-btn) {
  flex: 1;
}
@media (width < 900px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  .work,
  .part {
    padding: 12px;
  }
}
</style>
