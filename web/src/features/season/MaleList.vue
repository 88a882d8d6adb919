<script setup lang="ts">
import type { BoardMale } from '@karyotome/contract';
import { readinessWords } from '@karyotome/words';
import { mdiDragVertical } from '@mdi/js';
import { VueDraggable } from 'vue-draggable-plus';
import { massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import WhyPanel from '../../ui/WhyPanel.vue';
import { trendWords, maleUseWords } from './season-words.ts';

/** The males, each to be taken into the hand: dragged, or picked up with a button and put down with another. */
defineProps<{
  males: readonly BoardMale[];
  load: number;
  today: string;
  mayBreed: boolean;
}>();
const carried = defineModel<BoardMale | null>('carried', { required: true });
const dragging = defineModel<boolean>('dragging', { required: true });
/** Whom he is with, or why he rests; nothing where he is simply free. */
const stateOf = (male: BoardMale): string | null => {
  if (male.with) return `With ${male.with.number}`;
  return male.readiness.ready ? null : `Rest: ${readinessWords(male.readiness.reasons[0]!, reader()).text}`;
};
</script>

<template>
  <v-card class="males">
    <VueDraggable
      :model-value="[...males]"
      :group="{ name: 'males', pull: 'clone', put: false }"
      :sort="false"
      handle=".grip"
      :force-fallback="true"
      :fallback-on-body="true"
      :disabled="!mayBreed"
      @start="dragging = true"
      @end="dragging = false"
    >
      <div v-for="male in males" :key="male.id" class="male" :data-male="male.id">
        <span v-if="mayBreed" class="grip" :title="`Drag ${male.number} to a female`"
          ><v-icon :icon="mdiDragVertical"
        /></span>
        <span class="cut"
          ><router-link :to="`/animals/${male.id}`" class="plain"
            ><strong>{{ male.number }}</strong> {{ male.name }}</router-link
          >
          <span class="small soft">{{ ` ${male.label}` }}</span></span
        >
        <div class="acts">
          <v-btn
            v-if="mayBreed"
            size="small"
            :variant="carried?.id === male.id ? 'flat' : 'outlined'"
            :color="carried?.id === male.id ? 'secondary' : undefined"
            :aria-pressed="carried?.id === male.id"
            :aria-label="`Select ${male.number}`"
            @click="carried = carried?.id === male.id ? null : male"
            >{{ carried?.id === male.id ? 'Selected' : 'Select' }}</v-btn
          >
          <WhyPanel
            label=""
            :title="`${male.number}: ${male.readiness.ready ? 'may be put to a female' : 'rest advised'}`"
          >
            <p v-for="reason in male.readiness.reasons" :key="reason.code">
              <strong>{{ reason.side === 'for' ? 'For' : 'Against' }}:</strong>
              {{ readinessWords(reason, reader()).text }}.
              <span class="soft small">{{ readinessWords(reason, reader()).rule }}</span>
            </p>
          </WhyPanel>
        </div>
        <div class="facts small">
          <span v-if="stateOf(male)" :class="male.with ? 'out' : 'rest'">{{ stateOf(male) }}</span>
          <span class="soft cut">{{ maleUseWords(male, load) }}</span>
          <span class="soft cut">{{
            [
              male.massG === null ? 'never weighed' : massWords(male.massG),
              trendWords(male.weights, today),
              male.readiness.fastingDays ? `fasting ${male.readiness.fastingDays} days` : '',
            ]
              .filter(Boolean)
              .join(', ')
          }}</span>
        </div>
      </div>
    </VueDraggable>
  </v-card>
</template>

<style scoped>
.male {
  display: grid;
  grid-template-columns: 24px 1fr auto;
  align-items: center;
  gap: 0 8px;
  padding: 6px 8px;
  background: rgb(var(--v-theme-surface));
}
.male + .male {
  border-top: 1px solid var(--hair);
}
.grip {
  display: grid;
  grid-row: 1 / 3;
  align-self: stretch;
  place-items: center;
  cursor: grab;
  touch-action: none;
}
.facts {
  display: grid;
  grid-column: 2 / -1;
  min-width: 0;
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.rest {
  color: rgb(var(--v-theme-warning));
  font-weight: 560;
}
.out {
  font-weight: 560;
}
.acts {
  display: flex;
  align-items: center;
}
.acts :deep(.v-btn__prepend) {
  margin-inline: 0;
}
.acts :deep(.v-btn) {
  min-width: 40px;
  padding: 0 10px;
}
</style>
