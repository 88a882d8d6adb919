<script setup lang="ts" generic="Outcome extends string">
import { computed, ref } from 'vue';
import { useDisplay } from 'vuetify';

/** One outcome for a whole list, and another one for those that are touched. */
const props = defineProps<{
  title: string;
  subtitle: string;
  rows: readonly {
    readonly id: string;
    readonly place: string;
    readonly number: string;
    readonly about: string;
  }[];
  /** In the order in which touching goes through them: the first holds for all, of the last nothing is entered. */
  outcomes: readonly [Outcome, ...Outcome[]];
  /** How many had which outcome, in words. */
  countWords: (outcome: Outcome, count: number) => string;
}>();
const emit = defineEmits<{
  close: [];
  /** Those of which something is entered. */
  enter: [outcomes: { id: string; outcome: Outcome }[], said: string];
}>();
defineSlots<{ note?: () => unknown }>();
const { smAndDown } = useDisplay();
const others = ref(new Map<string, Outcome>());
const usual = computed(() => props.outcomes[0]);
const leftOut = computed(() => props.outcomes.at(-1)!);
const outcomeOf = (id: string): Outcome => (others.value as Map<string, Outcome>).get(id) ?? usual.value;
function touch(id: string): void {
  const { outcomes } = props;
  const next = outcomes[(outcomes.indexOf(outcomeOf(id)) + 1) % outcomes.length]!;
  others.value = new Map(others.value as Map<string, Outcome>).set(id, next) as typeof others.value;
}
const count = (outcome: Outcome): number => props.rows.filter(({ id }) => outcomeOf(id) === outcome).length;
const said = computed(() =>
  props.outcomes
    .filter((outcome) => outcome === usual.value || count(outcome) > 0)
    .map((outcome) => props.countWords(outcome, count(outcome)))
    .join(', '),
);
function enter(): void {
  const entered = props.rows
    .map(({ id }) => ({ id, outcome: outcomeOf(id) }))
    .filter(({ outcome }) => outcome !== leftOut.value);
  emit('enter', entered, said.value);
}
</script>

<template>
  <v-dialog
    :model-value="true"
    max-width="560"
    :fullscreen="smAndDown"
    scrollable
    @update:model-value="emit('close')"
  >
    <v-card :title="title" :subtitle="subtitle">
      <v-card-text class="list">
        <button
          v-for="row in rows"
          :key="row.id"
          type="button"
          class="one"
          :class="{ other: outcomeOf(row.id) !== usual }"
          @click="touch(row.id)"
        >
          <span class="num soft">{{ row.place }}</span>
          <span class="who">
            <strong>{{ row.number }}</strong>
            <span class="small soft about">{{ row.about }}</span>
          </span>
          <strong class="outcome">{{ outcomeOf(row.id) }}</strong>
        </button>
        <div class="note"><slot name="note" /></div>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-spacer />
        <v-btn
          color="primary"
          variant="flat"
          size="large"
          :disabled="count(leftOut) === rows.length"
          @click="enter"
          >Enter: {{ said }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.list {
  padding: 0 8px !important;
}
.one {
  display: grid;
  grid-template-columns: minmax(40px, max-content) 1fr auto;
  align-items: center;
  gap: 12px;
  width: 100%;
  min-height: 52px;
  padding: 4px 12px;
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
}
.who {
  display: grid;
  min-width: 0;
}
.about {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.outcome {
  color: rgb(var(--v-theme-primary));
}
.other {
  background: rgb(var(--v-theme-surface-light));
}
.other .outcome {
  color: rgb(var(--v-theme-error));
}
.note:not(:empty) {
  padding: 12px;
}
</style>
