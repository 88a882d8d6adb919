<script setup lang="ts">
import { newReading, type NewReading } from '@karyotome/contract';
import { useNotices } from '../../stores/notices.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import TemperatureField from '../../ui/TemperatureField.vue';

/** What somebody read off an incubator, or in a room. */
const props = defineProps<{
  place: { readonly id: string; readonly name: string };
  add: (id: string, input: NewReading) => Promise<unknown>;
}>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
/** Now, in the form that the field takes: local, to the minute. */
const now = (): string => {
  const date = new Date();
  return new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `reading.${props.place.id}`,
  initial: () => ({ at: now(), celsius: null as number | null, humidity: null as number | null }),
  schema: newReading,
  toInput: ({ at, ...values }) => ({
    ...filled(values),
    ...(at ? { at: new Date(at).toISOString() } : {}),
  }),
  send: (input) => props.add(props.place.id, input),
});
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(`${props.place.name}: reading kept`);
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Reading"
    :subtitle="place.name"
    submit-text="Keep"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <TemperatureField v-model="draft.celsius" label="Temperature" :error-messages="errorsOf('celsius')" />
    <v-number-input
      v-model="draft.humidity"
      label="Humidity, %"
      control-variant="hidden"
      :precision="0"
      :error-messages="errorsOf('humidity')"
    />
    <v-text-field v-model="draft.at" type="datetime-local" label="Read at" :error-messages="errorsOf('at')" />
  </FormDialog>
</template>
