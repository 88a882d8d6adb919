<script setup lang="ts">
import type { ClutchView } from '@karyotome/contract';
import { CHECK_LATE_DAYS, daysBetween, REFERENCE_C, type Milestone } from '@karyotome/core';
import { CUTTING_CAUTION, cuttingWords, waitWords } from '@karyotome/words';
import { computed } from 'vue';
import { agoWords, dayWords, spanOfDays, temperatureWords } from '../../format/format.ts';
import WhyPanel from '../../ui/WhyPanel.vue';
import { basisWords, spanWords } from '../season/season-words.ts';

/** The incubation clock: the day, what is behind and what is coming, and when eggs would be cut. */
const props = defineProps<{ clutch: ClutchView }>();
/** The strip ends here, unless the clutch took longer. */
const LAST_DAY = 64;
const clock = computed(() => props.clutch.clock);
const scale = computed(() => Math.max(LAST_DAY, clock.value.day + 2));
const at = (day: number): string => `${(Math.min(day, scale.value) / scale.value) * 100}%`;
/** A look that was left out for longer is not made up for: the next one counts. */
const next = computed(() =>
  clock.value.milestones.find(
    (one) => !one.done && one.what !== 'first-pip' && one.day >= clock.value.day - CHECK_LATE_DAYS,
  ),
);
const pip = computed(() => clock.value.milestones.find(({ what }) => what === 'first-pip'));
const MILESTONE_WORDS: Readonly<Record<Milestone['what'], string>> = {
  'egg-check': 'Check the eggs',
  'first-pip': 'First pip',
};
const cutDay = computed(() =>
  clock.value.cutOn === null ? null : daysBetween(props.clutch.laidOn, clock.value.cutOn),
);
</script>

<template>
  <v-card class="clock">
    <div class="row">
      <h2>
        {{
          clutch.hatchedOn
            ? `Hatched on day ${daysBetween(clutch.laidOn, clutch.hatchedOn)}`
            : `Day ${clock.day}`
        }}
      </h2>
      <v-spacer />
      <WhyPanel title="The incubation clock">
        <p v-if="clock.pip">
          <strong>{{ waitWords(clock.pip) }}.</strong> Eight in ten fall in the span shown.
          {{ basisWords(clock.pip) }}
        </p>
        <p>
          Days are counted as warm days: a day warmer than {{ temperatureWords(REFERENCE_C) }} counts for a
          little more, a cooler one for less. Measured temperatures are used where there are any, else what
          the incubator is set to.
        </p>
      </WhyPanel>
    </div>
    <p v-if="clock.pip" class="next">
      {{ waitWords(clock.pip) }}<br />
      <span class="small">{{ spanWords(clock.pip) }}</span>
    </p>
    <p v-else-if="pip?.done" class="next">First pip on day {{ pip.day }}, {{ agoWords(pip.on) }}</p>
    <p v-if="!clutch.hatchedOn && clutch.counts.out === 0" class="small">
      First young out of the egg {{ spanOfDays(clock.out.from, clock.out.to) }}
    </p>
    <div class="strip" aria-hidden="true">
      <span class="gone" :style="{ width: at(clutch.hatchedOn ? scale : clock.day) }" />
      <span
        v-for="one in clock.milestones"
        :key="one.what + one.day"
        class="stone"
        :class="{ done: one.done, pip: one.what === 'first-pip' }"
        :style="{ left: at(one.day) }"
      />
      <span v-if="cutDay !== null" class="cut" :style="{ left: at(cutDay) }" />
    </div>
    <ul class="list small">
      <li v-for="one in clock.milestones" :key="one.what + one.day" :class="{ soft: one.done }">
        <span class="num">day {{ one.day }}</span>
        <span>{{ MILESTONE_WORDS[one.what] }}{{ one.done ? ': done' : '' }}</span>
        <span class="soft">{{ dayWords(one.on) }}</span>
      </li>
      <li v-if="clock.cutOn && !clutch.hatchedOn">
        <span class="num">day {{ cutDay }}</span>
        <span>Cut what has not pipped</span>
        <span class="soft">{{ dayWords(clock.cutOn) }}</span>
      </li>
    </ul>
    <p v-if="!clutch.hatchedOn" class="small soft">
      <template v-if="next"
        >Next look at the eggs {{ next.day < clock.day ? 'was due ' : '' }}{{ agoWords(next.on) }}. </template
      >{{ cuttingWords(clock.cutting) }}
      <template v-if="clock.cutOn">{{ CUTTING_CAUTION }}</template>
    </p>
  </v-card>
</template>

<style scoped>
.clock {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.next {
  color: rgb(var(--v-theme-secondary));
  font-weight: 560;
}
.strip {
  position: relative;
  height: 14px;
  border-radius: 7px;
  background: rgb(var(--v-theme-surface-light));
}
.gone {
  position: absolute;
  inset: 0 auto 0 0;
  border-radius: 7px;
  background: color-mix(in srgb, rgb(var(--v-theme-secondary)) 45%, transparent);
}
.stone {
  position: absolute;
  top: 3px;
  width: 8px;
  height: 8px;
  margin-left: -4px;
  border: 2px solid rgb(var(--v-theme-on-surface));
  border-radius: 50%;
  background: rgb(var(--v-theme-surface));
}
.stone.done {
  background: rgb(var(--v-theme-on-surface));
}
.stone.pip {
  border-radius: 0;
  transform: rotate(45deg);
}
.cut {
  position: absolute;
  top: -3px;
  width: 3px;
  height: 20px;
  background: rgb(var(--v-theme-error));
}
.list {
  display: grid;
  gap: 3px;
  padding: 0;
  list-style: none;
}
.list li {
  display: grid;
  grid-template-columns: 56px 1fr auto;
  gap: 10px;
}
</style>
