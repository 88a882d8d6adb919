<script setup lang="ts">
import { newClutch } from '@karyotome/contract';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { farmToday, temperatureWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useIncubators } from '../../stores/queries.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import TemperatureField from '../../ui/TemperatureField.vue';

/** The eggs of a female are there: how many, and where they lie. What each is like is said on their own page. */
const props = defineProps<{ pairingId: string; pair: string }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const { data: incubators } = useIncubators();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `clutch.${props.pairingId}`,
  initial: () => ({
    laidOn: farmToday() as string | null,
    eggs: null as number | null,
    slugs: 0 as number | null,
    incubatorId: null as string | null,
    /** Where no incubator is named. */
    incubationC: 31.4 as number | null,
  }),
  schema: newClutch,
  toInput: ({ incubationC, ...values }) => ({
    pairingId: props.pairingId,
    ...filled(values),
    ...(values.incubatorId ? {} : filled({ incubationC })),
  }),
  send: api.addClutch,
});
async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  notices.say('Clutch recorded');
  emit('close');
  await router.push(`/season/clutches/${sent.value.id}`);
}
</script>

<template>
  <FormDialog
    title="Eggs laid"
    :subtitle="pair"
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
    <v-select
      v-if="incubators?.length"
      v-model="draft.incubatorId"
      label="Incubator"
      clearable
      :items="
        incubators.map(({ id, name, setC }) => ({ value: id, title: `${name}, ${temperatureWords(setC)}` }))
      "
      :error-messages="errorsOf('incubatorId')"
    />
    <TemperatureField
      v-if="!draft.incubatorId"
      v-model="draft.incubationC"
      label="Incubated at"
      :error-messages="errorsOf('incubationC')"
    />
    <p class="wide small soft">
      On the next page each egg can be weighed and looked at. Mark the top of each egg and never roll one: the
      embryo fixes itself to the shell and drowns if turned. Eggs that stuck together stay together.
    </p>
  </FormDialog>
</template>
