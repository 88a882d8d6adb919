<script setup lang="ts">
import type { TodayLine } from '@karyotome/contract';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useSession } from '../../stores/session.ts';
import { useToday } from '../../stores/queries.ts';
import { dayWords } from '../../format/format.ts';
import StateBlock from '../../ui/StateBlock.vue';
import type { RecordSubject } from '../records/useRecordForm.ts';
import ZonePrompt from '../settings/ZonePrompt.vue';
import TodayNav from './TodayNav.vue';
import TodayRow from './TodayRow.vue';

// The day stands before its forms are fetched.
const RecordDialog = defineAsyncComponent(() => import('../records/RecordDialog.vue'));
const SurfaceCheckDialog = defineAsyncComponent(() => import('../racks/SurfaceCheckDialog.vue'));

const { data, status, error, refetch } = useToday();
const session = useSession();
const KINDS = [
  { value: 'all', title: 'All' },
  { value: 'meal', title: 'Meals' },
  { value: 'shed', title: 'Sheds' },
  { value: 'weigh', title: 'Weights' },
  { value: 'move', title: 'Moves' },
  { value: 'bench', title: 'Bench' },
  { value: 'eggs', title: 'Eggs' },
  { value: 'season', title: 'Season' },
  { value: 'concern', title: 'Concerns' },
  { value: 'room', title: 'Room' },
] as const;
const GROUP: Record<TodayLine['kind'], string> = {
  meal: 'meal',
  weigh: 'weigh',
  shed: 'shed',
  'first-shed': 'shed',
  sex: 'bench',
  identify: 'bench',
  move: 'move',
  settle: 'move',
  eggs: 'eggs',
  season: 'season',
  climate: 'eggs',
  concern: 'concern',
  clean: 'room',
  heat: 'room',
  stock: 'room',
  sale: 'concern',
};
/** What has a day of its own can be missed; a shed lasts, and is not. */
const CAN_BE_MISSED: readonly TodayLine['kind'][] = ['meal', 'weigh', 'clean', 'heat'];
const by = useLocalStorage<'place' | 'act'>('karyotome.today.by', 'place');
const zone = ref<NonNullable<TodayLine['zone']> | null>(null);
const kind = ref<string>('all');
const counts = computed(() => {
  const lines = data.value?.lines ?? [];
  return Object.fromEntries(
    KINDS.map(({ value }) => [
      value,
      value === 'all' ? lines.length : lines.filter((l) => GROUP[l.kind] === value).length,
    ]),
  );
});
const shown = computed(() =>
  (data.value?.lines ?? []).filter((line) => kind.value === 'all' || GROUP[line.kind] === kind.value),
);
const isMissed = (line: TodayLine): boolean =>
  CAN_BE_MISSED.includes(line.kind) && line.dueOn < (data.value?.today ?? '');
/** "Snake room · Rack A", and what stands outside the racks. */
function placeOf(line: TodayLine): string {
  const tub = line.animal?.tub;
  if (tub) return `${tub.room} · ${tub.rack}`;
  if (line.kind === 'stock') return 'Freezer';
  if (line.zone) return 'Heat';
  if (line.incubator || line.kind === 'eggs') return 'Incubator';
  return line.clutch ? 'Bench' : 'Without a tub';
}
const ACTS = Object.fromEntries(KINDS.map(({ value, title }) => [value, title]));
/** What was missed first, then in walking order: one heading per room and rack, or per act. */
const groups = computed(() => {
  const known = new Map<string, TodayLine[]>();
  const put = (title: string, line: TodayLine): void =>
    void known.set(title, [...(known.get(title) ?? []), line]);
  for (const line of shown.value) if (isMissed(line)) put('Overdue', line);
  for (const line of shown.value)
    if (!isMissed(line)) put(by.value === 'act' ? ACTS[GROUP[line.kind]]! : placeOf(line), line);
  return [...known];
});
const subject = ref<RecordSubject | null>(null);
const list = ref<HTMLElement | null>(null);
/** J and K walk down and up the lines. */
function walk(event: KeyboardEvent): void {
  const step = { j: 1, k: -1 }[event.key.toLowerCase()];
  if (!step || subject.value || event.ctrlKey || event.metaKey) return;
  const lines = [...(list.value?.querySelectorAll<HTMLElement>('.line') ?? [])];
  const at = lines.findIndex((line) => line.contains(document.activeElement));
  lines[Math.max(0, at + step)]?.focus();
}
useEventListener('keydown', walk);
</script>

<template>
  <div ref="list" class="place">
    <div class="place-head">
      <h1>Today</h1>
      <TodayNav />
      <span v-if="data" class="soft">{{ dayWords(data.today) }}</span>
    </div>
    <ZonePrompt />
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.lines.length === 0"
      empty-title="Nothing is due"
      empty-text="Meals, sheds, weights, eggs and advised moves appear here on their day. Enter your animals to begin."
      @retry="refetch()"
    >
      <template #first>
        <v-btn color="primary" to="/animals?add=1">Add an animal</v-btn>
        <v-btn to="/animals/import">Bring in a CSV file</v-btn>
      </template>
      <div class="top">
        <v-chip-group v-model="kind" mandatory selected-class="chosen" aria-label="What to show">
          <v-chip
            v-for="entry in KINDS"
            :key="entry.value"
            :value="entry.value"
            label
            :disabled="counts[entry.value] === 0"
          >
            {{ entry.title }}&nbsp;<strong class="num">{{ counts[entry.value] }}</strong>
          </v-chip>
        </v-chip-group>
        <v-btn-toggle v-model="by" density="compact" aria-label="Grouped by">
          <v-btn value="place">By place</v-btn>
          <v-btn value="act">By act</v-btn>
        </v-btn-toggle>
      </div>
      <p v-if="data && data.thaw.length > 0" class="thaw">
        <router-link to="/today/feeding"><strong>Thaw tonight</strong></router-link>
        <span v-for="entry in data.thaw" :key="entry.prey" class="num"
          >{{ entry.count }} × {{ entry.prey
          }}<span v-if="entry.left !== null && entry.left < 0" class="short">
            ({{ -entry.left }} short)</span
          ></span
        >
      </p>
      <section v-for="[title, lines] in groups" :key="title" class="section">
        <h2>
          {{ title }} <span class="soft small">{{ lines.length }}</span>
        </h2>
        <v-card>
          <TodayRow
            v-for="line in lines"
            :key="line.key"
            :line="line"
            :may-record="session.mayRecord"
            @record="subject = $event"
            @heat="zone = $event"
          />
        </v-card>
      </section>
    </StateBlock>
    <SurfaceCheckDialog v-if="zone" :zone="zone" @close="zone = null" />
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
  margin-top: 18px;
}
.section h2 {
  margin-bottom: 8px;
}
.chosen {
  background: rgb(var(--v-theme-primary)) !important;
  color: rgb(var(--v-theme-on-primary)) !important;
}
</style>
