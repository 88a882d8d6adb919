<script setup lang="ts">
import { manyMoves, type AnimalSummary, type ManyMoves, type TubView } from '@karyotome/contract';
import { placeWords } from '@karyotome/words';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { countWords, farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useTubs } from '../../stores/queries.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FormDialog from '../../ui/FormDialog.vue';

/** Moves several animals into the free tubs of a rack, in walking order. */
const props = defineProps<{ animals: readonly AnimalSummary[] }>();
const emit = defineEmits<{ close: []; moved: [] }>();
const notices = useNotices();
const { data } = useTubs(false);
const undoing = useWrite(api.voidRecords);
const keyOf = ({ room, rack }: TubView): string => `${room}\n${rack}`;
const racks = computed(() => {
  const free = new Map<string, TubView[]>();
  for (const tub of data.value ?? []) free.set(keyOf(tub), [...(free.get(keyOf(tub)) ?? []), tub]);
  return [...free].map(([value, tubs]) => ({
    value,
    title: `${tubs[0]!.rack}, ${tubs[0]!.room}`,
    subtitle: `${tubs[0]!.kind}, ${countWords(tubs.length, 'free tub', 'free tubs')}`,
    tubs,
    disabled: tubs.length < props.animals.length,
  }));
});
const tubs = computed(() => racks.value.find(({ value }) => value === draft.rack)?.tubs ?? []);
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: 'move-chosen',
  initial: () => ({ rack: null as string | null, reason: 'Moved together' }),
  schema: manyMoves,
  toInput: ({ reason }): Partial<ManyMoves> => ({
    ...(tubs.value.length < props.animals.length
      ? {}
      : { moves: props.animals.map(({ id }, i) => ({ animalId: id, toTubId: tubs.value[i]!.tubId })) }),
    reason,
    on: farmToday(),
  }),
  send: api.moveMany,
});
async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  notices.say(`${countWords(props.animals.length, 'animal', 'animals')} moved`, async () => {
    if (!(await undoing.run(sent.value.ids)))
      notices.warn(undoing.message.value ?? 'It could not be taken back');
  });
  emit('moved');
}
</script>

<template>
  <FormDialog
    title="Move"
    :subtitle="countWords(animals.length, 'animal', 'animals')"
    submit-text="Move"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-select
      v-model="draft.rack"
      class="wide"
      label="Into the free tubs of"
      :items="racks"
      item-props
      :error-messages="errorsOf('moves')"
      no-data-text="No tub is free"
    />
    <v-text-field v-model="draft.reason" class="wide" label="Why" :error-messages="errorsOf('reason')" />
    <ul v-if="tubs.length >= animals.length" class="wide small">
      <li v-for="(animal, i) in animals" :key="animal.id">{{ animal.number }}: {{ placeWords(tubs[i]!) }}</li>
    </ul>
  </FormDialog>
</template>
