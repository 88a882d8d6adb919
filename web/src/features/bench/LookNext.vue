<script setup lang="ts">
import type { CatalogueTell, LookAdvice } from '@karyotome/core';
import { mdiMagnify } from '@mdi/js';
import { dayWords, oddsWords } from '../../format/format.ts';
import TellState from './TellState.vue';
import type { Mark } from './useLooks.ts';

/** Where to look next: the tells that would separate the leading candidates best, what to compare with, or when to look again. */
const props = defineProps<{ advice: LookAdvice; tells: readonly CatalogueTell[]; mayRecord: boolean }>();
defineEmits<{ mark: [tell: string, state: Mark]; compare: [looks: string] }>();
const tellOf = (id: string): CatalogueTell | undefined => props.tells.find((tell) => tell.id === id);
</script>

<template>
  <section class="next" aria-label="Look here next">
    <h3><v-icon :icon="mdiMagnify" size="20" /> Look here next</h3>
    <ol v-if="advice.tells.length > 0">
      <li v-for="one in advice.tells" :key="one.tell">
        <div class="words">
          <p>
            <strong>{{ tellOf(one.tell)?.zone }}</strong>: {{ tellOf(one.tell)?.text }}
          </p>
          <p class="small soft">
            {{ one.gene }}: {{ oddsWords(one.pIfSeen) }} if seen, {{ oddsWords(one.pIfNot) }} if not.
          </p>
        </div>
        <TellState
          :state="null"
          :label="`${tellOf(one.tell)?.zone}: ${tellOf(one.tell)?.text}, next`"
          :disabled="!mayRecord"
          @mark="$emit('mark', one.tell, $event)"
        />
      </li>
    </ol>
    <p v-else-if="advice.compare.length === 0 && advice.againOn === null" class="small soft">
      Nothing is left that a look would tell apart.
    </p>
    <div v-if="advice.compare.length > 0" class="row small">
      <span>Hold it beside</span>
      <v-btn
        v-for="one in advice.compare"
        :key="one.looks"
        size="small"
        variant="outlined"
        @click="$emit('compare', one.looks)"
        >{{ one.label }}</v-btn
      >
    </div>
    <p v-if="advice.againOn" class="small">
      Colours open up: look again after the second shed, about {{ dayWords(advice.againOn) }}.
    </p>
  </section>
</template>

<style scoped>
.next {
  display: grid;
  gap: 8px;
}
ol {
  display: grid;
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.words {
  line-height: 1.3;
}
</style>
