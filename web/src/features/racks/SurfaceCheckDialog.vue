<script setup lang="ts">
import { surfaceCheck } from '@karyotome/contract';
import { capital, heatFaultWords, sentences } from '@karyotome/words';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import TemperatureField from '../../ui/TemperatureField.vue';

/** The heat of one zone, measured at the surface. */
const props = defineProps<{ zone: { id: string; name: string; rack: string } }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const voiding = useWrite((id: string) => api.voidSurfaceCheck(id, 'Undone'));
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `heat.${props.zone.id}`,
  initial: () => ({
    on: farmToday() as string | null,
    warmC: null as number | null,
    coolC: null as number | null,
    probeFixed: true,
    note: null as string | null,
  }),
  schema: surfaceCheck,
  toInput: filled,
  send: (input) => api.addSurfaceCheck(props.zone.id, input),
});
async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  const { id, faults } = sent.value;
  if (faults.length > 0)
    notices.warn(sentences(['Recorded', ...faults.map((fault) => capital(heatFaultWords(fault, reader())))]));
  else
    notices.say(`${props.zone.name}: heat checked`, async () => {
      await voiding.run(id);
    });
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Heat at the surface"
    :subtitle="`${zone.rack}, ${zone.name}`"
    submit-text="Record"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <TemperatureField v-model="draft.warmC" label="Warm side" :error-messages="errorsOf('warmC')" />
    <TemperatureField v-model="draft.coolC" label="Cool side" :error-messages="errorsOf('coolC')" />
    <v-checkbox
      v-model="draft.probeFixed"
      label="The thermostat’s probe is fixed down"
      hide-details
      density="compact"
      class="wide"
    />
    <DayField v-model="draft.on" label="Day" :errors="errorsOf('on')" />
    <v-text-field v-model="draft.note" label="Note, if any" :error-messages="errorsOf('note')" />
    <p class="wide small soft">
      With an infrared thermometer, at the surface the animal lies on. A probe that hangs in the air lets the
      mat run hot; a mat without a thermostat burns and kills.
    </p>
  </FormDialog>
</template>
