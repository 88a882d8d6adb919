<script setup lang="ts">
import type { VisibleOutcome } from '@karyotome/core';
import { oddsWords } from '../format/format.ts';

/** What a pair can produce, by what shows, with a bar for the eye and the figure for the record. */
defineProps<{ outcomes: readonly VisibleOutcome[]; selectable?: boolean; chosen?: string | null }>();
defineEmits<{ choose: [VisibleOutcome] }>();
/** Where some eggs do not live: its share among those that do. */
const hatched = ({ pHatched }: VisibleOutcome): string =>
  pHatched === undefined ? '' : pHatched === 0 ? 'none hatch' : `${oddsWords(pHatched)} of those that hatch`;
const bySex = (outcome: VisibleOutcome): string =>
  Math.abs(outcome.pMale - outcome.pFemale) < 1e-9
    ? ''
    : `♂ ${oddsWords(outcome.pMale)}, ♀ ${oddsWords(outcome.pFemale)}`;
</script>

<template>
  <ul class="outcomes">
    <li v-for="outcome in outcomes" :key="outcome.label">
      <component
        :is="selectable ? 'button' : 'div'"
        class="outcome"
        :class="{ chosen: chosen === outcome.label }"
        :type="selectable ? 'button' : undefined"
        :aria-pressed="selectable ? chosen === outcome.label : undefined"
        @click="selectable && $emit('choose', outcome)"
      >
        <span class="bar" :style="{ width: `${Math.max(1, outcome.p * 100)}%` }" />
        <span class="name"
          >{{ outcome.label }}
          <span v-if="outcome.carries.length" class="soft small">{{ outcome.carries.join(', ') }}</span></span
        >
        <span class="num small">{{ hatched(outcome) || bySex(outcome) }}</span>
        <span class="num odds">{{ oddsWords(outcome.p) }}</span>
      </component>
    </li>
  </ul>
</template>

<style scoped>
.outcomes {
  list-style: none;
  padding: 0;
  margin: 0;
}
.outcome {
  position: relative;
  display: grid;
  grid-template-columns: 1fr auto 64px;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 40px;
  padding: 4px 10px;
  border: 0;
  border-radius: 8px;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
}
button.outcome {
  min-height: 44px;
  cursor: pointer;
}
button.outcome:hover,
button.outcome:focus-visible {
  outline: 2px solid rgb(var(--v-theme-primary));
}
.bar {
  position: absolute;
  inset: 3px auto 3px 0;
  border-radius: 8px;
  background: color-mix(in srgb, rgb(var(--v-theme-secondary)) 16%, transparent);
}
.name,
.num {
  position: relative;
}
.chosen {
  outline: 2px solid rgb(var(--v-theme-primary));
}
.odds {
  font-weight: 640;
}
</style>
