<script setup lang="ts">
import type { RoundAnimal, RoundRack } from '@karyotome/contract';
import { computed, ref } from 'vue';
import type { WholeRound } from '../../offline/device.ts';
import { mealOffers, type MealOffer } from './meal-offers.ts';
import type { Logged } from './useLogged.ts';
import { rackTitle, stopsOf } from './useRoundPlace.ts';

/** The racks in walking order: who eats in each, and what was logged of it today. */
const props = defineProps<{
  view: WholeRound;
  mayRecord: boolean;
  loggedOf: (animal: RoundAnimal) => Logged[];
}>();
const emit = defineEmits<{
  enter: [rackId: string, animalId?: string];
  /** The meals that are due and not logged yet. */
  feed: [rack: RoundRack, offers: MealOffer[]];
}>();
const find = ref('');
const rows = computed(() =>
  props.view.racks.map((rack) => {
    const stops = stopsOf(rack);
    const due = stops.filter(({ animal }) => animal.meal?.verdict === 'due');
    const logged = stops.filter(({ animal }) => props.loggedOf(animal).length > 0);
    const open = due.filter(({ animal }) => props.loggedOf(animal).length === 0);
    const first = open[0] ?? stops[0];
    return {
      rack,
      count: stops.length,
      due: due.length,
      logged: logged.length,
      first,
      offers: mealOffers(open),
    };
  }),
);
const found = computed(() => {
  const wanted = find.value.trim().toLowerCase();
  if (wanted === '') return [];
  return props.view.racks
    .flatMap((rack) => stopsOf(rack))
    .filter(({ animal }) => animal.number.toLowerCase().includes(wanted))
    .slice(0, 8);
});
</script>

<template>
  <div class="stack">
    <v-text-field v-model="find" label="Find a number" clearable class="find" />
    <div v-if="found.length > 0" class="row">
      <v-btn
        v-for="one in found"
        :key="one.animal.id"
        variant="outlined"
        @click="emit('enter', one.rack.id, one.animal.id)"
        >{{ one.animal.number }}, {{ one.rack.name }} {{ one.place }}</v-btn
      >
    </div>
    <v-card v-for="{ rack, count, due, logged, first, offers } in rows" :key="rack.id" class="rack">
      <div>
        <h2>{{ rackTitle(rack) }}</h2>
        <p class="small soft">
          {{ rack.room }}{{ rack.room ? ', ' : '' }}{{ count === 1 ? '1 animal' : `${count} animals` }}
        </p>
      </div>
      <p class="num">
        <strong>{{ due }}</strong> <span class="soft">to feed</span>
      </p>
      <p class="num">
        <strong>{{ logged }}</strong> <span class="soft">logged today</span>
      </p>
      <v-btn
        v-if="mayRecord && offers.length > 1"
        variant="outlined"
        size="large"
        :aria-label="`Feed all of ${rackTitle(rack)}`"
        @click="emit('feed', rack, offers)"
        >Feed all {{ offers.length }}…</v-btn
      >
      <span v-else />
      <v-btn
        color="primary"
        variant="flat"
        size="large"
        :aria-label="`Begin with ${rackTitle(rack)}`"
        @click="emit('enter', rack.id, first?.animal.id)"
        >{{ logged > 0 && logged < count ? 'Go on' : 'Begin' }}</v-btn
      >
    </v-card>
  </div>
</template>

<style scoped>
.find {
  max-width: 320px;
}
.rack {
  display: grid;
  grid-template-columns: 1fr auto auto 150px 110px;
  align-items: center;
  gap: 8px 28px;
  padding: 12px 16px;
}
@media (width < 600px) {
  .rack {
    grid-template-columns: 1fr 1fr;
  }
  .rack > div {
    grid-column: 1 / -1;
  }
  .rack > .num {
    text-align: left;
  }
  .rack > span:empty {
    display: none;
  }
  .rack > span:empty + .v-btn {
    grid-column: 1 / -1;
  }
}
</style>
