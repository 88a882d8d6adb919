<script setup lang="ts">
import { computed } from 'vue';
import { countWords } from '../../format/format.ts';
import OutcomeDialog from '../../ui/OutcomeDialog.vue';
import type { MealOffer } from './meal-offers.ts';
import type { Entry } from './round-acts.ts';

/** The meals of a whole rack at once: all took it, but for those that are touched. */
const props = defineProps<{ title: string; offers: readonly MealOffer[] }>();
const emit = defineEmits<{
  close: [];
  enter: [entries: { animal: MealOffer['animal']; entry: Entry }[], said: string];
}>();
type Outcome = 'took' | 'refused' | 'left out';
const rows = computed(() =>
  props.offers.map(({ animal, place, prey }) => ({
    id: animal.id,
    number: animal.number,
    place,
    about: `${prey} · ${animal.label}`,
  })),
);
const outcomeWords = (outcome: Outcome, count: number): string =>
  `${count} ${outcome === 'took' ? 'took it' : outcome}`;
function enter(outcomes: { id: string; outcome: Outcome }[], said: string): void {
  const offers = new Map(props.offers.map((offer) => [offer.animal.id, offer]));
  const entries = outcomes.map(({ id, outcome }) => {
    const { animal, entry } = offers.get(id)!;
    return { animal, entry: entry(outcome === 'took') };
  });
  emit('enter', entries, `${props.title}: ${said}`);
}
</script>

<template>
  <OutcomeDialog
    :title="title"
    :subtitle="`${countWords(offers.length, 'meal', 'meals')} due. Touch those that did not take it.`"
    :rows="rows"
    :outcomes="['took', 'refused', 'left out'] as const"
    :count-words="outcomeWords"
    @close="emit('close')"
    @enter="enter"
  />
</template>
