<script setup lang="ts">
import { newIncubator, type IncubatorView } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import TemperatureField from '../../ui/TemperatureField.vue';
import LimitFields from './LimitFields.vue';
import { limitsDraft } from './limits-draft.ts';

/** A new incubator, or what is to be changed of one: its setting, and when it shall raise an alarm. */
const props = defineProps<{ incubator: IncubatorView | null }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `incubator.${props.incubator?.id ?? 'new'}`,
  initial: () => ({
    name: props.incubator?.name ?? '',
    setC: (props.incubator?.setC ?? 31.4) as number | null,
    ...limitsDraft(props.incubator, { lowC: 30, highC: 32.5, lowHumidity: 80, silentAfterHours: 24 }),
  }),
  schema: newIncubator,
  toInput: (values) => ({ ...values }),
  send: (input) =>
    props.incubator
      ? api.changeIncubator(props.incubator.id, input, props.incubator.version)
      : api.addIncubator(input),
});
async function send(): Promise<void> {
  // A draft that was sent is empty again.
  const { name } = draft;
  if (!(await submit())) return;
  notices.say(`${name || 'The incubator'} saved`);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="incubator ? incubator.name : 'New incubator'"
    submit-text="Save"
    :max-width="640"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-text-field v-model="draft.name" label="Name" :error-messages="errorsOf('name')" />
    <TemperatureField v-model="draft.setC" label="Set to" :error-messages="errorsOf('setC')" />
    <LimitFields v-model="draft" :errors-of="errorsOf" />
  </FormDialog>
</template>
