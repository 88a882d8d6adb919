<script setup lang="ts">
import { SIGNS_FOR_VET } from '@karyotome/words';
import { computed } from 'vue';
import { agoWords, countWords, dayWords, farmToday } from '../../format/format.ts';
import { useMiteWatches } from '../../stores/queries.ts';
import OutcomeDialog from '../../ui/OutcomeDialog.vue';
import { useEntering } from '../rounds/useEntering.ts';
import { clearCheck, signsFound } from './health-acts.ts';

/** All who live in a rack in which mites were seen: nothing found on them, but for those that are touched. */
const props = defineProps<{ rackId: string }>();
const emit = defineEmits<{ close: [] }>();
type Outcome = 'nothing' | 'mites' | 'not looked at';
const { data } = useMiteWatches();
const { enterAll } = useEntering();
const watch = computed(() => data.value?.find(({ id }) => id === props.rackId) ?? null);
const due = computed(() => watch.value?.animals.filter(({ isDue }) => isDue) ?? []);
const rows = computed(() =>
  due.value.map(({ id, number, place, checkedOn }) => ({
    id,
    number,
    place: `${place.level}-${place.slot}`,
    about: checkedOn ? `last looked through ${agoWords(checkedOn)}` : 'never looked through',
  })),
);
const outcomeWords = (outcome: Outcome, count: number): string =>
  outcome === 'not looked at' ? `${count} not looked at` : `${outcome} on ${count}`;
async function enter(outcomes: { id: string; outcome: Outcome }[], said: string): Promise<void> {
  const today = farmToday();
  const animals = new Map(due.value.map((animal) => [animal.id, animal]));
  const entries = outcomes.map(({ id, outcome }) => ({
    animal: animals.get(id)!,
    entry: outcome === 'mites' ? signsFound(['mites'], today) : clearCheck(today),
  }));
  const title = `${watch.value!.name}: ${said}`;
  emit('close');
  await enterAll(entries, title);
}
</script>

<template>
  <OutcomeDialog
    v-if="watch"
    :title="`Mites: look through ${watch.name}`"
    :subtitle="`${countWords(due.length, 'animal', 'animals')} to look through. Touch those that have mites.`"
    :rows="rows"
    :outcomes="['nothing', 'mites', 'not looked at'] as const"
    :count-words="outcomeWords"
    @close="emit('close')"
    @enter="enter"
  >
    <template #note>
      <p class="small soft">
        Last seen here on {{ dayWords(watch.lastSeenOn) }}; watched until {{ dayWords(watch.until) }} if none
        are seen again. {{ SIGNS_FOR_VET }}
      </p>
    </template>
  </OutcomeDialog>
</template>
