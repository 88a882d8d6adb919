<script setup lang="ts">
import { newClutch, type PairingView } from '@karyotome/contract';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { localToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';

const props = defineProps<{ pairing: PairingView }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `clutch.${props.pairing.id}`,
  initial: () => ({
    laidOn: localToday() as string | null,
    eggs: null as number | null,
    slugs: 0 as number | null,
    incubationC: 31.4 as number | null,
  }),
  schema: newClutch,
  toInput: (values) => ({ pairingId: props.pairing.id, ...filled(values) }),
  send: api.addClutch,
});
async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  notices.say('Clutch recorded');
  emit('close');
  await router.push(`/bench/${sent.value.id}`);
}
</script>

<template>
  <FormDialog
    title="Eggs laid"
    :subtitle="`${pairing.dam.number} × ${pairing.sires.map((s) => s.number).join(' or ')}`"
    submit-text="Record clutch"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <DayField v-model="draft.laidOn" label="Laid on" :errors="errorsOf('laidOn')" />
    <v-number-input
      v-model="draft.eggs"
      label="Eggs in all"
      control-variant="hidden"
      :min="0"
      :error-messages="errorsOf('eggs')"
    />
    <v-number-input
      v-model="draft.slugs"
      label="Slugs among them"
      control-variant="hidden"
      :min="0"
      :error-messages="errorsOf('slugs')"
    />
    <v-number-input
      v-model="draft.incubationC"
      label="Incubator, °C"
      :precision="1"
      :step="0.1"
      control-variant="hidden"
      :error-messages="errorsOf('incubationC')"
    />
    <p class="wide small soft">
      Mark the top of each egg and never roll one: the embryo fixes itself to the shell and drowns if turned.
      Eggs that stuck together stay together.
    </p>
  </FormDialog>
</template>
