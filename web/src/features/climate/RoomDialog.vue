<script setup lang="ts">
import { newRoom, type RoomClimateView } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import LimitFields from './LimitFields.vue';
import { limitsDraft } from './limits-draft.ts';

/** A room whose climate is to be watched, or what is to be changed of one. */
const props = defineProps<{
  room: RoomClimateView | null;
  /** Rooms that racks stand in and nobody watches yet. */
  names: readonly string[];
}>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `room.${props.room?.id ?? 'new'}`,
  initial: () => ({
    name: (props.room?.name ?? props.names[0] ?? '') as string | null,
    ...limitsDraft(props.room, { lowC: 24, highC: 30, lowHumidity: 40, silentAfterHours: 6 }),
  }),
  schema: newRoom,
  toInput: (values) => ({ ...values, name: values.name ?? '' }),
  send: (input) =>
    props.room ? api.changeRoom(props.room.id, input, props.room.version) : api.addRoom(input),
});
async function send(): Promise<void> {
  // A draft that was sent is empty again.
  const { name } = draft;
  if (!(await submit())) return;
  notices.say(`${name || 'The room'} saved`);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="room ? room.name : 'Watch a room'"
    submit-text="Save"
    :max-width="640"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-combobox
      v-model="draft.name"
      class="wide"
      label="Room"
      :items="names"
      :error-messages="errorsOf('name')"
    />
    <LimitFields v-model="draft" :errors-of="errorsOf" />
  </FormDialog>
</template>
