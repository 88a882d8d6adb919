<script setup lang="ts">
import { newRack } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useLadders } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import { massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';

const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notices = useNotices();
const { data: ladders } = useLadders();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: 'rack',
  initial: () => ({
    room: 'Snake room',
    name: '',
    levels: 6 as number | null,
    tubsPerLevel: 4 as number | null,
    ladderId: session.settings?.ladderId ?? null,
    stepPosition: 0,
  }),
  schema: newRack,
  toInput: filled,
  send: api.addRack,
});
const steps = computed(() =>
  (ladders.value?.find((ladder) => ladder.id === draft.ladderId)?.steps ?? []).map((step, value) => ({
    value,
    title: `${step.name}, ${step.maxG === null ? `from ${massWords(step.minG)}` : reader().massSpan(step.minG, step.maxG)}`,
  })),
);
async function send(): Promise<void> {
  const { name } = draft;
  if (!(await submit())) return;
  notices.say(`${name} added`);
  emit('close');
}
</script>

<template>
  <FormDialog
    title="New rack"
    submit-text="Add rack"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-text-field v-model="draft.room" label="Room" :error-messages="errorsOf('room')" />
    <v-text-field v-model="draft.name" label="Name of the rack" :error-messages="errorsOf('name')" />
    <v-number-input
      v-model="draft.levels"
      label="Levels"
      control-variant="hidden"
      :min="0"
      :error-messages="errorsOf('levels')"
    />
    <v-number-input
      v-model="draft.tubsPerLevel"
      label="Tubs on a level"
      control-variant="hidden"
      :min="0"
      :error-messages="errorsOf('tubsPerLevel')"
    />
    <v-select
      v-model="draft.ladderId"
      label="Ladder"
      :items="(ladders ?? []).map((l) => ({ value: l.id, title: l.name }))"
      :error-messages="errorsOf('ladderId')"
    />
    <v-select
      v-model="draft.stepPosition"
      label="Kind of tub"
      :items="steps"
      :error-messages="errorsOf('stepPosition')"
    />
    <p class="wide small soft">
      Every heat mat on a thermostat with its probe fixed down: a probe that hangs in the air lets the mat run
      hot, and a mat without one burns and kills. Tape or hold down lids that only clip.
    </p>
  </FormDialog>
</template>
