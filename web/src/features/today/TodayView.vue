<script setup lang="ts">
import type { TodayLine } from '@karyotome/contract';
import { ACT_OF_KIND, isOverdue, TASK_ACTS, type TaskAct } from '@karyotome/core';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useSession } from '../../stores/session.ts';
import { useToday } from '../../stores/queries.ts';
import { dayWords } from '../../format/format.ts';
import MoreButton from '../../ui/MoreButton.vue';
import StateBlock from '../../ui/StateBlock.vue';
import type { RecordSubject } from '../records/useRecordForm.ts';
import type { MealOffer } from '../rounds/meal-offers.ts';
import { mealEntry } from '../rounds/round-acts.ts';
import { useRackFeeding } from '../rounds/useRackFeeding.ts';
import { byAnimal } from './today-subject.ts';
import TodayNav from './TodayNav.vue';
import TodayRow from './TodayRow.vue';

// The day stands before its forms are fetched.
const RecordDialog = defineAsyncComponent(() => import('../records/RecordDialog.vue'));
const FirstSteps = defineAsyncComponent(() => import('./FirstSteps.vue'));
const FeedRackDialog = defineAsyncComponent(() => import('../rounds/FeedRackDialog.vue'));
const MiteCheckDialog = defineAsyncComponent(() => import('../health/MiteCheckDialog.vue'));
const ZonePrompt = defineAsyncComponent(() => import('../settings/ZonePrompt.vue'));
const SurfaceCheckDialog = defineAsyncComponent(() => import('../racks/SurfaceCheckDialog.vue'));

const session = useSession();
const ACT_WORDS: Readonly<Record<TaskAct, string>> = {
  meal: 'Meals',
  shed: 'Sheds',
  weigh: 'Weights',
  move: 'Moves',
  bench: 'Bench',
  eggs: 'Eggs',
  season: 'Season',
  health: 'Health',
  concern: 'Concerns',
  room: 'Room',
};
const by = useLocalStorage<'place' | 'act'>('karyotome.today.by', 'place');
const zone = ref<NonNullable<TodayLine['zone']> | null>(null);
/** The rack whose animals are looked through for mites. */
const mites = ref<string | null>(null);
const act = ref<TaskAct | 'all'>('all');
const { data, status, error, refetch, hasMore, more, asyncStatus } = useToday(() => ({
  by: by.value,
  ...(act.value === 'all' ? {} : { act: act.value }),
}));
const view = computed(() => data.value?.[0]);
const lines = computed(() => (data.value ?? []).flatMap((part) => part.lines));
const chips = computed(() => {
  const counts = view.value?.counts;
  const count = (one: TaskAct): number => counts?.[one] ?? 0;
  return [
    { value: 'all', title: 'All', count: TASK_ACTS.reduce((sum, one) => sum + count(one), 0) },
    ...TASK_ACTS.map((one) => ({ value: one, title: ACT_WORDS[one], count: count(one) })),
  ];
});
const isZoneAsked = computed(
  () => session.settings !== null && session.settings.timeZone == null && session.mayManage,
);
/** The first steps that were left out on this device; `done` once none is open. */
const leftOut = useLocalStorage<readonly string[]>(`karyotome.first-steps.${session.settings?.id ?? ''}`, []);
const isBeginning = computed(
  () => session.mayManage && session.mayBreed && session.mayHouse && !leftOut.value.includes('done'),
);
const isEmpty = computed(() => view.value !== undefined && chips.value[0]!.count === 0);
/** "Snake room · Rack A"; what is done elsewhere by its act. */
function placeOf(line: TodayLine): string {
  const elsewhere = ACT_WORDS[ACT_OF_KIND[line.kind]];
  if (line.kind === 'season' || !line.animal) return elsewhere;
  const { tub } = line.animal;
  return tub ? `${tub.room} · ${tub.rack}` : 'Without a tub';
}
/** What was missed first, then in walking order: one heading per room and rack, or per act. */
const groups = computed(() => {
  const known = new Map<string, TodayLine[]>();
  const today = view.value?.today ?? '';
  for (const line of lines.value) {
    const title = isOverdue(line, today)
      ? 'Overdue'
      : by.value === 'act'
        ? ACT_WORDS[ACT_OF_KIND[line.kind]]
        : placeOf(line);
    known.set(title, [...(known.get(title) ?? []), line]);
  }
  return [...known].map(([title, own]) => ({ title, rows: byAnimal(own), offers: offersOf(own) }));
});
const { feeding, enterMeals } = useRackFeeding();
/** The meals of a group, to be entered at once. */
function offersOf(own: readonly TodayLine[]): MealOffer[] {
  return own.flatMap(({ animal, preset }) =>
    animal && preset
      ? [
          {
            animal,
            place: animal.tub ? `${animal.tub.level}-${animal.tub.slot}` : '',
            prey: `${preset.species} ${preset.size}`,
            entry: (taken: boolean) => mealEntry(preset, taken),
          },
        ]
      : [],
  );
}
const subject = ref<RecordSubject | null>(null);
const list = ref<HTMLElement | null>(null);
/** J and K walk down and up the lines. */
function walk(event: KeyboardEvent): void {
  const step = { j: 1, k: -1 }[event.key.toLowerCase()];
  if (!step || subject.value || event.ctrlKey || event.metaKey) return;
  const shown = [...(list.value?.querySelectorAll<HTMLElement>('.line') ?? [])];
  const at = shown.findIndex((line) => line.contains(document.activeElement));
  shown[Math.max(0, at + step)]?.focus();
}
useEventListener('keydown', walk);
</script>

<template>
  <div ref="list" class="place">
    <div class="place-head">
      <h1>Today</h1>
      <TodayNav />
      <span v-if="view" class="soft">{{ dayWords(view.today) }}</span>
    </div>
    <ZonePrompt v-if="isZoneAsked" />
    <FirstSteps v-if="isBeginning" v-model:left-out="leftOut" @done="leftOut = ['done']" />
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="isEmpty"
      empty-title="Nothing is due"
      empty-text="Meals, sheds, weights, eggs and advised moves appear here on their day. Enter your animals to begin."
      @retry="refetch()"
    >
      <template #first>
        <v-btn color="primary" to="/animals?add=1">Add an animal</v-btn>
        <v-btn to="/animals/import">Bring in a CSV file</v-btn>
      </template>
      <div class="top">
        <v-chip-group v-model="act" mandatory selected-class="chosen" aria-label="What to show">
          <v-chip
            v-for="chip in chips"
            :key="chip.value"
            :value="chip.value"
            label
            :disabled="chip.count === 0"
          >
            {{ chip.title }}&nbsp;<strong class="num">{{ chip.count }}</strong>
          </v-chip>
        </v-chip-group>
        <v-btn-toggle v-model="by" density="compact" aria-label="Grouped by">
          <v-btn value="place">By place</v-btn>
          <v-btn value="act">By act</v-btn>
        </v-btn-toggle>
      </div>
      <p v-if="view && view.thaw.length > 0" class="thaw">
        <router-link to="/today/feeding"><strong>Thaw tonight</strong></router-link>
        <span v-for="entry in view.thaw" :key="entry.prey" class="num"
          >{{ entry.count }} × {{ entry.prey
          }}<span v-if="entry.left !== null && entry.left < 0" class="short">
            ({{ -entry.left }} short)</span
          ></span
        >
      </p>
      <section v-for="{ title, rows, offers } in groups" :key="title" class="section">
        <div class="section-head">
          <h2>
            {{ title }} <span v-if="title === 'Overdue'" class="soft small">{{ view?.overdue }}</span>
          </h2>
          <v-btn
            v-if="session.mayRecord && offers.length > 1"
            size="small"
            variant="text"
            :aria-label="`Feed all of ${title}`"
            @click="feeding = { title: `Feed ${title}`, offers }"
            >Feed all {{ offers.length }}…</v-btn
          >
        </div>
        <v-card>
          <TodayRow
            v-for="row in rows"
            :key="row[0]!.key"
            :lines="row"
            :may-record="session.mayRecord"
            @record="subject = $event"
            @heat="zone = $event"
            @mites="mites = $event"
          />
        </v-card>
      </section>
      <MoreButton v-if="hasMore" :busy="asyncStatus === 'loading'" @more="more" />
    </StateBlock>
    <FeedRackDialog v-if="feeding" v-bind="feeding" @close="feeding = null" @enter="enterMeals" />
    <SurfaceCheckDialog v-if="zone" :zone="zone" @close="zone = null" />
    <MiteCheckDialog v-if="mites" :rack-id="mites" @close="mites = null" />
    <RecordDialog v-if="subject" :subject="subject" @close="subject = null" />
  </div>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 24px;
}
.thaw {
  margin-top: 8px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
.short {
  color: rgb(var(--v-theme-error));
}
.section {
  margin-top: 10px;
}
.section-head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 36px;
}
.chosen {
  background: rgb(var(--v-theme-primary)) !important;
  color: rgb(var(--v-theme-on-primary)) !important;
}
</style>
