<script setup lang="ts">
import type { TodayLine } from '@karyotome/contract';
import { moveReasonWords, taskWords } from '@karyotome/words';
import { mdiPause } from '@mdi/js';
import { computed, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { sexSign } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import WhyPanel from '../../ui/WhyPanel.vue';
import type { RecordSubject } from '../records/useRecordForm.ts';
import TodayActs from './TodayActs.vue';
import { homeOf, subjectOf } from './today-subject.ts';
import { useMealSwipe } from './useMealSwipe.ts';

/** One animal, clutch or place with all that it needs today, doable on the spot. */
const props = defineProps<{ lines: readonly TodayLine[]; mayRecord: boolean }>();
const emit = defineEmits<{
  record: [RecordSubject];
  heat: [NonNullable<TodayLine['zone']>];
  mites: [rackId: string];
}>();
const router = useRouter();
const first = computed(() => props.lines[0]!);
const animal = computed(() => first.value.animal);
const home = computed(() => (animal.value ? `/animals/${animal.value.id}` : homeOf(first.value)));
const place = computed(() => {
  const tub = animal.value?.tub;
  return tub ? `${tub.level}-${tub.slot}` : '';
});
const staysInTub = computed(() => props.lines.some((line) => line.staysInTub));
const tasks = computed(() =>
  props.lines.map((line) => ({
    line,
    told: taskWords(line, reader()),
    reasons: (line.advice?.reasons ?? []).map((reason) => ({
      ...reason,
      words: moveReasonWords(reason, reader()),
    })),
  })),
);
const acts = useTemplateRef('acts');
function meal(taken: boolean): void {
  for (const one of acts.value ?? []) void one?.meal(taken);
}
const isMeal = computed(() => props.mayRecord && props.lines.some(({ preset }) => preset !== null));
const { offset, meant } = useMealSwipe(useTemplateRef('line'), () => isMeal.value, meal);
/** Keys of the row that has the focus. */
function onKey(event: KeyboardEvent): void {
  if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey) return;
  const key = event.key.toLowerCase();
  if (key === 't' || key === 'r') meal(key === 't');
  if (key === 'enter') void router.push(homeOf(first.value));
}
</script>

<template>
  <div
    ref="line"
    class="line"
    :class="[lines.map(({ kind }) => kind), meant, { drawn: offset !== 0 }]"
    :style="offset === 0 ? undefined : { transform: `translateX(${offset}px)` }"
    tabindex="0"
    role="group"
    :aria-label="`${subjectOf(first)}: ${tasks.map(({ told }) => told.text).join('; ')}`"
    @keydown="onKey"
  >
    <span class="tub num soft">{{ place }}</span>
    <router-link :to="home" class="who plain">
      <strong
        >{{ subjectOf(first)
        }}<span v-if="animal" :title="animal.sex">{{ ` ${sexSign(animal.sex)}` }}</span></strong
      >
      <span v-if="animal" class="soft small label">{{ animal.label }}</span>
    </router-link>
    <span class="what">
      <span v-for="{ line, told, reasons } in tasks" :key="line.key" class="task" :class="`is-${line.kind}`">
        {{ told.text }}
        <WhyPanel :title="told.text" is-small>
          <template v-if="line.advice">
            <p v-for="reason in reasons" :key="reason.code">
              <strong>{{ reason.side === 'for' ? 'For' : 'Against' }}:</strong> {{ reason.words.text }}.
              <span class="soft small">{{ reason.words.rule }}</span>
            </p>
          </template>
          <p v-else>{{ told.why }}</p>
          <p v-if="line.animal">
            <router-link :to="`/animals/${line.animal.id}#record`"
              >The records of {{ line.animal.number }}</router-link
            >
          </p>
        </WhyPanel>
      </span>
      <span v-if="staysInTub" class="small soft" title="Heavy enough to move up, but leave it for now">
        <v-icon :icon="mdiPause" size="16" /> stays in its tub
      </span>
    </span>
    <span class="acts">
      <TodayActs
        v-for="line in lines"
        ref="acts"
        :key="line.key"
        :line="line"
        :may-record="mayRecord"
        @record="emit('record', $event)"
        @heat="emit('heat', $event)"
        @mites="emit('mites', $event)"
      />
    </span>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  /* What is to do begins at one edge, however many buttons there are. */
  grid-template-columns: 36px minmax(150px, 300px) minmax(180px, 1fr) auto;
  align-items: center;
  gap: 0 12px;
  min-height: 44px;
  padding: 2px 12px;
  /* What is out of sight is neither laid out nor painted, however long the list is. */
  content-visibility: auto;
  contain-intrinsic-size: auto 44px;
}
/* Sideways it is the finger's, up and down it scrolls. */
.line.meal {
  touch-action: pan-y;
}
.line.drawn {
  background: rgb(var(--v-theme-surface-variant));
  user-select: none;
}
.line.taken {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
}
.line.refused {
  background: rgb(var(--v-theme-error));
  color: rgb(var(--v-theme-on-error));
}
.line:focus-visible {
  outline: 2px solid rgb(var(--v-theme-primary));
  outline-offset: -2px;
}
.line + .line {
  border-top: 1px solid var(--hair);
}
.who {
  display: flex;
  align-items: baseline;
  gap: 8px;
  min-width: 0;
}
.who strong {
  white-space: nowrap;
}
.label {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 12px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 4px 6px;
}
.acts :deep(.v-btn) {
  --v-btn-height: 36px;
  min-height: 36px;
}

.is-move,
.is-concern,
.is-dose,
.is-health,
.is-shed {
  font-weight: 600;
}
@media (width < 760px) {
  .line {
    grid-template-columns: 34px 1fr;
    padding: 8px 12px;
    contain-intrinsic-size: auto 118px;
  }
  .what {
    grid-column: 2;
  }
  .acts {
    grid-column: 2;
    justify-content: flex-start;
  }
}
@media (width < 760px), (pointer: coarse) {
  .acts :deep(.v-btn) {
    min-height: 44px;
  }
}
</style>
