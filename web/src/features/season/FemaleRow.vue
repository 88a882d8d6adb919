<script setup lang="ts">
import type { BoardFemale, BoardMale } from '@karyotome/contract';
import type { SeasonEventKind } from '@karyotome/core';
import { readinessWords, waitWords } from '@karyotome/words';
import { mdiDotsVertical } from '@mdi/js';
import { computed } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { agoWords, ageWords, dayWords, massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import WhyPanel from '../../ui/WhyPanel.vue';
import { basisWords, siresWords, spanWords, stageWords } from './season-words.ts';

/** One female on the board: whether she is ready, where she stands, what comes next, and the acts of the night. */
const props = defineProps<{
  female: BoardFemale;
  mayBreed: boolean;
  /** The male that is in the hand: may be put to her. */
  carried: BoardMale | null;
}>();
const emit = defineEmits<{
  put: [maleId: string];
  note: [kind: SeasonEventKind, sireId?: string];
  open: ['choose-male' | 'event' | 'story' | 'lay'];
}>();
const stage = computed(() => props.female.pairing?.forecast.stage ?? 'open');
const inside = computed(() => props.female.pairing?.forecast.with ?? []);
const expected = computed(() => props.female.pairing?.forecast.expected ?? []);
const isOver = computed(() => stage.value === 'laid');
const numberOf = (id: string): string =>
  props.female.pairing?.sires.find((sire) => sire.id === id)?.number ?? '';
const facts = computed(() =>
  [
    props.female.massG === null
      ? 'never weighed'
      : `${massWords(props.female.massG)} (min. ${massWords(props.female.floorG)})`,
    ...(props.female.hatchedOn ? [ageWords(props.female.hatchedOn)] : []),
  ].join(' · '),
);
/** Her last clutch, while the next is open, and her appetite. */
const below = computed(() => {
  const { lastClutch, lastMealOn, readiness } = props.female;
  const isOpen = stage.value === 'open' || stage.value === 'apart';
  return [
    ...(isOpen
      ? [lastClutch ? `last laid ${dayWords(lastClutch.laidOn)}, ${lastClutch.eggs} eggs` : 'no clutch yet']
      : []),
    ...(readiness.fastingDays
      ? [`fasting ${readiness.fastingDays} days`]
      : isOpen && lastMealOn
        ? [`ate ${agoWords(lastMealOn)}`]
        : []),
  ].join(', ');
});
/** More kinds to note than the buttons show. */
const others = computed(() => (stage.value === 'together' ? (['ovulation', 'pre-lay-shed'] as const) : []));
function dropped(event: { item: HTMLElement }): void {
  const id = event.item.dataset['male'];
  if (id) emit('put', id);
}
</script>

<template>
  <div
    class="female"
    role="group"
    :aria-label="`${female.number}: ${stageWords(female)}`"
    :class="{ target: carried && !isOver, unready: !female.readiness.ready }"
  >
    <div class="who">
      <router-link :to="`/animals/${female.id}`" class="plain"
        ><strong>{{ female.number }}</strong> {{ female.name }}</router-link
      >
      <span class="small soft cut">{{ female.label }}</span>
      <span class="small soft cut">{{ facts }}</span>
    </div>
    <div class="state">
      <span
        ><strong>{{ stageWords(female) }}</strong
        ><span v-if="siresWords(female) && stage !== 'together'" class="small soft">{{
          ` · ${siresWords(female)}`
        }}</span></span
      >
      <span v-for="one in expected" :key="one.what" class="small next"
        >{{ waitWords(one) }}: {{ spanWords(one) }}</span
      >
      <span v-if="below" class="small soft">{{ below }}</span>
      <span v-if="female.pairing?.cautions.length" class="small care">{{ female.pairing.cautions[0] }}</span>
    </div>
    <div class="acts">
      <template v-if="mayBreed && carried && !isOver">
        <v-btn color="secondary" variant="flat" @click="emit('put', carried.id)"
          >Put {{ carried.number }} here</v-btn
        >
      </template>
      <template v-else-if="mayBreed">
        <div v-if="inside.length > 0" class="pairs">
          <template v-for="id in inside" :key="id">
            <span v-if="inside.length > 1" class="small">{{ numberOf(id) }}</span>
            <v-btn
              color="primary"
              variant="flat"
              :aria-label="`${female.number}: lock seen with ${numberOf(id)}`"
              @click="emit('note', 'lock', id)"
              >Lock</v-btn
            >
            <v-btn
              variant="outlined"
              :aria-label="`${female.number}: separate from ${numberOf(id)}`"
              @click="emit('note', 'separation', id)"
              >Separate</v-btn
            >
          </template>
        </div>
        <v-btn
          v-if="stage === 'apart'"
          variant="outlined"
          :aria-label="`${female.number}: ovulated`"
          @click="emit('note', 'ovulation')"
          >Ovulated</v-btn
        >
        <v-btn
          v-if="stage === 'apart' || stage === 'ovulated'"
          :variant="stage === 'ovulated' ? 'flat' : 'outlined'"
          :color="stage === 'ovulated' ? 'primary' : undefined"
          :aria-label="`${female.number}: pre-lay shed`"
          @click="emit('note', 'pre-lay-shed')"
          >Pre-lay shed</v-btn
        >
        <v-btn v-if="stage === 'pre-lay'" color="primary" variant="flat" @click="emit('open', 'lay')"
          >Eggs laid…</v-btn
        >
        <v-btn
          v-if="stage === 'open' && female.readiness.ready"
          variant="outlined"
          :aria-label="`${female.number}: put a male to her`"
          @click="emit('open', 'choose-male')"
          >Put a male…</v-btn
        >
      </template>
      <v-btn
        v-if="female.pairing?.clutch && !carried"
        variant="outlined"
        :to="`/season/clutches/${female.pairing.clutch.id}`"
        >Eggs</v-btn
      >
      <WhyPanel :title="`${female.number}: ${female.readiness.ready ? 'ready' : 'not ready'}`">
        <p v-for="reason in female.readiness.reasons" :key="reason.code">
          <strong>{{ reason.side === 'for' ? 'For' : 'Against' }}:</strong>
          {{ readinessWords(reason, reader()).text }}.
          <span class="soft small">{{ readinessWords(reason, reader()).rule }}</span>
        </p>
        <p v-for="one in expected" :key="one.what">
          <strong>{{ spanWords(one) }}</strong>: eight in ten fall in this span. {{ basisWords(one) }}
        </p>
        <p v-for="caution in female.pairing?.cautions ?? []" :key="caution">{{ caution }}</p>
        <p>
          <router-link :to="`/animals/${female.id}#record`">The records of {{ female.number }}</router-link>
        </p>
      </WhyPanel>
      <v-menu>
        <template #activator="{ props: activator }">
          <v-btn
            v-bind="activator"
            :icon="mdiDotsVertical"
            variant="text"
            size="small"
            :aria-label="`${female.number}: more`"
          />
        </template>
        <v-list>
          <template v-if="mayBreed">
            <v-list-item
              v-for="kind in others"
              :key="kind"
              :title="kind === 'ovulation' ? 'Ovulated today' : 'Pre-lay shed today'"
              @click="emit('note', kind)"
            />
            <v-list-item v-if="!isOver" title="Put a male to her…" @click="emit('open', 'choose-male')" />
            <v-list-item
              v-if="female.pairing && stage !== 'laid'"
              title="Eggs laid…"
              @click="emit('open', 'lay')"
            />
            <v-list-item
              v-if="female.pairing"
              title="Something on another day…"
              @click="emit('open', 'event')"
            />
          </template>
          <v-list-item
            v-if="female.pairing"
            title="Her season and the fathers…"
            @click="emit('open', 'story')"
          />
          <v-list-item :to="`/animals/${female.id}`" title="Her page" />
        </v-list>
      </v-menu>
    </div>
    <VueDraggable
      v-if="mayBreed && !isOver"
      :model-value="[]"
      group="males"
      :sort="false"
      class="drop"
      @add="dropped"
    />
  </div>
</template>

<style scoped>
.female {
  position: relative;
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr) auto;
  align-items: center;
  gap: 2px 14px;
  min-height: 60px;
  padding: 6px 8px 6px 14px;
}
.female + .female {
  border-top: 1px solid var(--hair);
}
.who,
.state {
  display: grid;
  min-width: 0;
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.next {
  color: rgb(var(--v-theme-secondary));
  font-weight: 560;
}
.care {
  color: rgb(var(--v-theme-error));
}
.acts {
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 6px;
}
/* With two males, a line for each. */
.pairs {
  display: grid;
  grid-template-columns: repeat(2, auto);
  align-items: center;
  gap: 6px;
}
.pairs:has(.small) {
  grid-template-columns: repeat(3, auto);
}
.target {
  background: color-mix(in srgb, rgb(var(--v-theme-secondary)) 9%, transparent);
}
/* Only while a male is dragged does the row take him in. */
.drop {
  position: absolute;
  inset: 2px;
  display: none;
  align-items: center;
  justify-content: center;
  border: 2px dashed rgb(var(--v-theme-secondary));
  border-radius: 10px;
  overflow: hidden;
}
.dragging .drop {
  display: flex;
}
.drop:has(.male) {
  background: color-mix(in srgb, rgb(var(--v-theme-secondary)) 30%, transparent);
}
.drop :deep(.male) {
  opacity: 0;
}
@media (width < 900px) {
  .female {
    grid-template-columns: 1fr;
    padding: 10px 12px;
  }
  .acts {
    flex-wrap: wrap;
    justify-content: flex-start;
  }
  .acts :deep(.v-btn) {
    min-height: 44px;
  }
}
</style>
