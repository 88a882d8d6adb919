<script setup lang="ts">
import { rackChange, type RackSummary } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';

const props = defineProps<{ rack: RackSummary }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `rack.${props.rack.id}.${props.rack.version}`,
  initial: () => ({
    room: props.rack.room,
    name: props.rack.name,
    levels: props.rack.levels as number | null,
    tubsPerLevel: props.rack.tubsPerLevel as number | null,
  }),
  schema: rackChange,
  toInput: filled,
  send: (input) => api.changeRack(props.rack.id, input, props.rack.version),
});
async function send(): Promise<void> {
  const { name } = draft;
  if (!(await submit())) return;
  notices.say(`${name} saved`);
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Edit rack"
    :subtitle="rack.step.name"
    submit-text="Save rack"
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
      :error-messages="errorsOf('levels')"
    />
    <v-number-input
      v-model="draft.tubsPerLevel"
      label="Tubs on a level"
      control-variant="hidden"
      :error-messages="errorsOf('tubsPerLevel')"
    />
    <p class="wide small soft">Tubs that fall away must be empty.</p>
  </FormDialog>
</template>
