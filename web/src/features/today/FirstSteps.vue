<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import { mdiCheckBold } from '@mdi/js';
import { computed, watch } from 'vue';
import { api } from '../../api/resources.ts';
import { useHasAnimals, useMembers, useRacks } from '../../stores/queries.ts';

/** What a new collection begins with, until each step is done or left out: then nothing of it is asked any more. */
const leftOut = defineModel<readonly string[]>('leftOut', { required: true });
const emit = defineEmits<{ done: [] }>();
const { data: racks } = useRacks();
const { data: members } = useMembers();
const { data: hasAnimals } = useHasAnimals(true);
const { data: hasWeights } = useQuery({
  key: ['animals', 'weighed'],
  query: async () => (await api.animals({ limit: '1', sort: '-weighedOn' })).items[0]?.weighedOn != null,
});
const steps = computed(() => {
  const known =
    racks.value && members.value && hasAnimals.value !== undefined && hasWeights.value !== undefined;
  if (!known) return [];
  return [
    {
      key: 'racks',
      title: 'Build your racks',
      about: 'A room, and for each rack its levels, tubs and step of the enclosure ladder.',
      isDone: racks.value!.length > 0,
      links: [{ to: '/racks?build=1', text: 'Racks of a room' }],
    },
    {
      key: 'animals',
      title: 'Enter your animals',
      about:
        'By typing their genes as you write them on a tub, from pictures of their cards, or all of them from a spreadsheet.',
      isDone: hasAnimals.value!,
      links: [
        { to: '/animals?add=1', text: 'One by one' },
        { to: '/animals?add=1&cards=1', text: 'From their cards' },
        { to: '/animals/import', text: 'From a spreadsheet' },
      ],
    },
    {
      key: 'tubs',
      title: 'Put them into their tubs',
      about: 'Drag them to where they live: rounds and Today follow the way through the racks.',
      isDone: racks.value!.some(({ animals }) => animals > 0),
      links: [{ to: '/racks', text: 'Racks' }],
    },
    {
      key: 'weights',
      title: 'Weigh them once',
      about: 'Meals, advice to move and the season go by weight.',
      isDone: hasWeights.value!,
      links: [{ to: '/rounds', text: 'Begin a round' }],
    },
    {
      key: 'people',
      title: 'Invite who helps',
      about: 'By an address that works once, with only what each may do.',
      isDone: members.value!.length > 1,
      links: [{ to: '/settings/people', text: 'People' }],
    },
  ].map((step) => ({ ...step, isLeftOut: leftOut.value.includes(step.key) }));
});
const open = computed(() => steps.value.filter(({ isDone, isLeftOut }) => !isDone && !isLeftOut));
watch(steps, (all) => {
  if (all.length > 0 && open.value.length === 0) emit('done');
});
</script>

<template>
  <v-card v-if="open.length > 0" class="first" role="region" aria-labelledby="first-steps">
    <h2 id="first-steps">First steps</h2>
    <ol>
      <li
        v-for="step in steps.filter(({ isLeftOut }) => !isLeftOut)"
        :key="step.key"
        :class="{ done: step.isDone }"
      >
        <v-icon v-if="step.isDone" :icon="mdiCheckBold" size="20" aria-label="done" />
        <span v-else class="ring" aria-hidden="true" />
        <span class="words">
          <strong>{{ step.title }}</strong>
          <span v-if="!step.isDone" class="small soft">{{ step.about }}</span>
        </span>
        <span v-if="!step.isDone" class="row">
          <v-btn v-for="{ to, text } in step.links" :key="to" :to="to" size="small" variant="outlined">{{
            text
          }}</v-btn>
          <v-btn
            size="small"
            variant="text"
            :aria-label="`Leave out: ${step.title}`"
            @click="leftOut = [...leftOut, step.key]"
            >Leave out</v-btn
          >
        </span>
      </li>
    </ol>
  </v-card>
</template>

<style scoped>
.first {
  display: grid;
  gap: 8px;
  margin-bottom: 16px;
  padding: 14px 16px;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 24px 1fr auto;
  align-items: center;
  gap: 4px 12px;
  min-height: 48px;
}
li.done {
  min-height: 32px;
}
.words {
  display: grid;
}
.done .words {
  color: var(--soft);
  font-weight: 400;
}
.ring {
  width: 18px;
  height: 18px;
  border: 2px solid currentcolor;
  border-radius: 50%;
}
@media (width < 700px) {
  li {
    grid-template-columns: 24px 1fr;
  }
  li .row {
    grid-column: 2;
  }
}
</style>
