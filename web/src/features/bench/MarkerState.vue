<script setup lang="ts">
import type { Mark } from './useObservations.ts';

/** One marker's three answers. A second touch on the one that stands takes it back. */
defineProps<{ state: Mark; label: string; disabled?: boolean }>();
defineEmits<{ mark: [Mark] }>();
const ANSWERS: readonly { state: Exclude<Mark, null>; words: string }[] = [
  { state: 'seen', words: 'Seen' },
  { state: 'not-seen', words: 'Not' },
];
</script>

<template>
  <div class="answers" role="group" :aria-label="label">
    <button
      v-for="answer in ANSWERS"
      :key="answer.state"
      type="button"
      :class="{ on: state === answer.state, [answer.state]: true }"
      :aria-pressed="state === answer.state"
      :aria-label="`${answer.words === 'Not' ? 'Not seen' : answer.words}: ${label}`"
      :disabled="disabled"
      @click="$emit('mark', state === answer.state ? null : answer.state)"
    >
      {{ answer.words }}
    </button>
    <button
      type="button"
      class="unsaid"
      :class="{ on: state === null }"
      :aria-pressed="state === null"
      :aria-label="`Cannot say: ${label}`"
      title="Cannot say"
      :disabled="disabled"
      @click="$emit('mark', null)"
    >
      ?
    </button>
  </div>
</template>

<style scoped>
.answers {
  display: grid;
  grid-template-columns: 58px 50px 44px;
  flex: none;
  align-self: center;
  border: 1.5px solid var(--hair);
  border-radius: 10px;
  overflow: hidden;
}
button {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  font-size: 0.9rem;
  cursor: pointer;
}
button + button {
  border-left: 1.5px solid var(--hair);
}
button.on {
  font-weight: 700;
  background: rgb(var(--v-theme-surface-variant));
}
button.on.seen {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
}
button.on.not-seen {
  text-decoration: line-through;
}
button.on.unsaid {
  font-weight: 400;
  color: var(--soft);
  background: none;
}
button:focus-visible {
  outline: 2px solid rgb(var(--v-theme-secondary));
  outline-offset: -3px;
}
</style>
