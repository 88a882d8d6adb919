<script setup lang="ts">
import { clutchChange, type ClutchView } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useIncubators } from '../../stores/queries.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import TemperatureField from '../../ui/TemperatureField.vue';
import { temperatureWords } from '../../format/format.ts';

/** Corrects what is known of a clutch as a whole: the lay date, where it lies and at what. */
const props = defineProps<{ clutch: ClutchView }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { data: incubators } = useIncubators();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `clutch-change.${props.clutch.id}`,
  initial: () => ({
    laidOn: props.clutch.laidOn as string | null,
    incubatorId: props.clutch.incubator?.id ?? null,
    incubationC: props.clutch.incubationC,
    note: props.clutch.note ?? '',
  }),
  schema: clutchChange,
  toInput: ({ laidOn, incubatorId, incubationC, note }) => ({
    ...filled({ laidOn }),
    incubatorId,
    incubationC,
    note,
  }),
  send: (input) => api.changeClutch(props.clutch.id, input, props.clutch.version),
});
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(`Clutch ${props.clutch.name} saved`);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="`Clutch ${clutch.name}`"
    submit-text="Save"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <DayField v-model="draft.laidOn" label="Laid on" :errors="errorsOf('laidOn')" />
    <v-select
      v-model="draft.incubatorId"
      label="Incubator"
      clearable
      :items="
        (incubators ?? []).map(({ id, name, setC }) => ({
          value: id,
          title: `${name}, ${temperatureWords(setC)}`,
        }))
      "
      :error-messages="errorsOf('incubatorId')"
    />
    <TemperatureField
      v-model="draft.incubationC"
      label="Incubated at"
      :error-messages="errorsOf('incubationC')"
    />
    <v-textarea v-model="draft.note" class="wide" label="Note" rows="3" :error-messages="errorsOf('note')" />
  </FormDialog>
</template>
