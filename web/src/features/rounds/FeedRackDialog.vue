<script setup lang="ts">
import { computed, ref } from 'vue';
import { useDisplay } from 'vuetify';
import { countWords } from '../../format/format.ts';
import type { MealOffer } from './meal-offers.ts';
import type { Entry } from './round-acts.ts';

/** The meals of a whole rack at once: all took it, but for those that are touched. */
const props = defineProps<{ title: string; offers: readonly MealOffer[] }>();
const emit = defineEmits<{
  close: [];
  enter: [entries: { animal: MealOffer['animal']; entry: Entry }[], said: string];
}>();
/** In the order in which touching goes through them. */
const OUTCOMES = ['took', 'refused', 'left out'] as const;
type Outcome = (typeof OUTCOMES)[number];
const { smAndDown } = useDisplay();
const others = ref(new Map<string, Outcome>());
const outcomeOf = ({ animal }: MealOffer): Outcome => others.value.get(animal.id) ?? 'took';
function touch(offer: MealOffer): void {
  const next = OUTCOMES[(OUTCOMES.indexOf(outcomeOf(offer)) + 1) % OUTCOMES.length]!;
  others.value = new Map(others.value).set(offer.animal.id, next);
}
const count = (outcome: Outcome): number => props.offers.filter((one) => outcomeOf(one) === outcome).length;
const said = computed(() =>
  [
    `${count('took')} took it`,
    ...(count('refused') > 0 ? [`${count('refused')} refused`] : []),
    ...(count('left out') > 0 ? [`${count('left out')} left out`] : []),
  ].join(', '),
);
function enter(): void {
  const entries = props.offers.flatMap((offer) => {
    const outcome = outcomeOf(offer);
    return outcome === 'left out' ? [] : [{ animal: offer.animal, entry: offer.entry(outcome === 'took') }];
  });
  emit('enter', entries, `${props.title}: ${said.value}`);
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
    <v-card
      :title="title"
      :subtitle="`${countWords(offers.length, 'meal', 'meals')} due. Touch those that did not take it.`"
    >
      <v-card-text class="offers">
        <button
          v-for="offer in offers"
          :key="offer.animal.id"
          type="button"
          class="offer"
          :class="{ other: outcomeOf(offer) !== 'took' }"
          @click="touch(offer)"
        >
          <span class="num soft">{{ offer.place }}</span>
          <span class="who">
            <strong>{{ offer.animal.number }}</strong>
            <span class="small soft label">{{ offer.prey }} · {{ offer.animal.label }}</span>
          </span>
          <strong class="outcome">{{ outcomeOf(offer) }}</strong>
        </button>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-spacer />
        <v-btn
          color="primary"
          variant="flat"
          size="large"
          :disabled="count('left out') === offers.length"
          @click="enter"
          >Enter: {{ said }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.offers {
  padding: 0 8px !important;
}
.offer {
  display: grid;
  grid-template-columns: 40px 1fr auto;
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
.label {
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
</style>
