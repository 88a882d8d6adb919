<script setup lang="ts">
import type { TodayLine } from '@karyotome/contract';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { useSession } from '../../stores/session.ts';
import { useToday } from '../../stores/queries.ts';
import { dayWords } from '../../format/format.ts';
import StateBlock from '../../ui/StateBlock.vue';
import RecordDialog from '../records/RecordDialog.vue';
import type { RecordSubject } from '../records/useRecordForm.ts';
import TodayRow from './TodayRow.vue';

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
};
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
/** In walking order: one heading per room and rack. */
const places = computed(() => {
  const groups = new Map<string, TodayLine[]>();
  for (const line of shown.value) {
    const tub = line.animal?.tub;
    const place = line.incubator
      ? 'Incubator'
      : line.clutch
        ? line.kind === 'eggs'
          ? 'Incubator'
          : 'Bench'
        : tub
          ? `${tub.room} · ${tub.rack}`
          : 'Without a tub';
    groups.set(place, [...(groups.get(place) ?? []), line]);
  }
  return [...groups];
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
onMounted(() => window.addEventListener('keydown', walk));
onBeforeUnmount(() => window.removeEventListener('keydown', walk));
</script>

<template>
  <div ref="list" class="place">
    <div class="place-head">
      <h1>Today</h1>
      <span v-if="data" class="soft">{{ dayWords(data.today) }}</span>
    </div>
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
        <p v-if="data && data.thaw.length > 0" class="thaw">
          <strong>Thaw tonight</strong>
          <span v-for="entry in data.thaw" :key="entry.prey" class="num"
            >{{ entry.count }} × {{ entry.prey }}</span
          >
        </p>
      </div>
      <section v-for="[place, lines] in places" :key="place" class="section">
        <h2>
          {{ place }} <span class="soft small">{{ lines.length }}</span>
        </h2>
        <v-card>
          <TodayRow
            v-for="line in lines"
            :key="line.key"
            :line="line"
            :may-record="session.mayRecord"
            @record="subject = $event"
          />
        </v-card>
      </section>
    </StateBlock>
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
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
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
