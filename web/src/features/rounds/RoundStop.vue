<script setup lang="ts">
import { preyWords, handlingFlagWords, soakAdvice } from '@karyotome/words';
import { computed } from 'vue';
import { agoWords, massWords, sexSign, spanOfDays } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { VERDICT_WORDS } from '../animal/care-words.ts';
import type { RoundAct } from './round-acts.ts';
import RoundActs from './RoundActs.vue';
import type { Logged } from './useLogged.ts';
import { stopPlace, type Stop } from './useRoundPlace.ts';

/** One tub: who is in it, what it needs, what was logged of it today, and what can be logged. */
const props = defineProps<{ stop: Stop; done: readonly Logged[]; mayRecord: boolean }>();
const emit = defineEmits<{
  act: [RoundAct];
  weigh: [];
  note: [];
  photo: [File];
  undo: [Logged];
}>();
const animal = computed(() => props.stop.animal);
const meal = computed(() => animal.value.meal);
const isDue = computed(() => meal.value?.verdict === 'due');
</script>

<template>
  <article class="stop" :aria-label="`${animal.number}, ${stopPlace(stop)}`">
    <header class="who">
      <p class="tub">{{ stop.place || 'no tub' }}</p>
      <div class="name">
        <h2>{{ animal.number }} {{ sexSign(animal.sex) }}</h2>
        <p class="small soft">{{ animal.label }}</p>
      </div>
      <p class="mass num">
        {{ animal.massG === null ? 'never weighed' : massWords(animal.massG) }}
        <span v-if="animal.weighedOn" class="small soft">{{ agoWords(animal.weighedOn) }}</span>
      </p>
    </header>
    <p v-if="animal.flags.length > 0" class="flags">
      <strong v-for="(flag, i) in animal.flags" :key="i">{{ handlingFlagWords(flag, reader()) }}</strong>
    </p>
    <p v-if="animal.shed">
      <strong>In shed ({{ animal.shed.stage }}), day {{ animal.shed.days }}</strong
      >, shed expected {{ spanOfDays(animal.shed.expected.from, animal.shed.expected.to) }}: no handling, no
      cleaning.
    </p>
    <p v-if="animal.soak">
      <strong v-if="animal.soak.veterinarian">See a veterinarian.</strong>
      {{ soakAdvice(reader()) }}
    </p>
    <p v-if="meal" class="meal" :class="{ due: isDue }">
      <strong>{{ isDue ? 'Offer' : VERDICT_WORDS[meal.verdict] }}</strong>
      {{ preyWords(meal, reader())
      }}<template v-if="!isDue && meal.verdict === 'later'">{{ `, ${agoWords(meal.dueOn)}` }}</template>
      <span v-if="meal.plan.step && meal.plan.index > 0" class="small"
        >{{ meal.plan.step.name }}, attempt {{ meal.plan.triesUsed + 1 }} of {{ meal.plan.step.tries }}</span
      >
      <span v-if="meal.plan.step?.caution" class="small caution">{{ meal.plan.step.caution }}</span>
      <span class="small soft"
        >{{ animal.appetite.inARow }} in a row, {{ animal.appetite.takenEver }} of
        {{ animal.appetite.offeredEver }} ever</span
      >
    </p>
    <p v-else class="soft">Weigh it first: meals go by weight.</p>
    <ul v-if="done.length > 0" class="done" aria-label="Logged today">
      <li v-for="one in done" :key="one.key">
        <span>{{ one.text }}</span>
        <span v-if="one.isWaiting" class="small soft">waits</span>
        <v-btn
          v-if="mayRecord"
          size="small"
          variant="text"
          :aria-label="`Take back: ${one.text}`"
          @click="emit('undo', one)"
          >Take back</v-btn
        >
      </li>
    </ul>
    <RoundActs
      v-if="mayRecord"
      :is-due="isDue"
      :has-meal="meal !== null"
      @act="emit('act', $event)"
      @weigh="emit('weigh')"
      @note="emit('note')"
      @photo="emit('photo', $event)"
    />
  </article>
</template>

<style scoped>
.stop {
  display: grid;
  gap: 12px;
}
.who {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: center;
  gap: 12px;
}
.tub {
  display: grid;
  place-items: center;
  min-width: 64px;
  min-height: 56px;
  padding: 0 10px;
  border-radius: 4px 4px 14px 14px;
  background: rgb(var(--v-theme-surface-variant));
  color: rgb(var(--v-theme-on-surface-variant));
  font-size: 1.3rem;
  font-weight: 640;
}
.name {
  min-width: 0;
}
.mass {
  display: grid;
  font-size: 1.15rem;
  font-weight: 560;
}
.flags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  color: rgb(var(--v-theme-secondary));
}
.meal {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 10px;
  padding: 10px 14px;
  border-radius: 10px;
  border: 1.5px solid var(--hair);
}
.meal.due {
  border-color: rgb(var(--v-theme-primary));
  font-size: 1.1rem;
}
.caution {
  color: rgb(var(--v-theme-error));
}
.done {
  margin: 0;
  padding: 0;
  list-style: none;
}
.done li {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
  border-top: 1px solid var(--hair);
}
.done li span:first-child {
  margin-right: auto;
}
</style>
