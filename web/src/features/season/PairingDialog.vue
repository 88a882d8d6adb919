<script setup lang="ts">
import { newPairing } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { localToday, oddsWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useAnimals } from '../../stores/queries.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import OutcomeList from '../../ui/OutcomeList.vue';
import { useOdds } from '../../workers/useOdds.ts';

/** A new pairing, with what it can produce and what to beware of before the animals are put together. */
const emit = defineEmits<{ close: [] }>();
const { data: animals } = useAnimals();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: 'pairing',
  initial: () => ({
    season: Number(localToday().slice(0, 4)) as number | null,
    damId: null as string | null,
    sireId: null as string | null,
    secondId: null as string | null,
    /** Percent. */
    weight: 50,
    startedOn: localToday() as string | null,
  }),
  schema: newPairing,
  toInput: ({ sireId, secondId, weight, ...values }) => ({
    ...filled(values),
    sires: [
      filled({ animalId: sireId, weight: secondId ? 1 - weight / 100 : 1 }),
      ...(secondId ? [{ animalId: secondId, weight: weight / 100 }] : []),
    ],
  }),
  send: api.addPairing,
});

const labelOf = (id: string | null): string | null =>
  animals.value?.find((animal) => animal.id === id)?.label ?? null;
const question = computed(() => {
  const dam = labelOf(draft.damId);
  const sires = [draft.sireId, draft.secondId].map(labelOf).filter((label) => label !== null);
  return dam && sires.length > 0 ? { dam, sires } : null;
});
const { answer } = useOdds(question);
const cautions = computed(() => [...new Set((answer.value ?? []).flatMap((entry) => entry.cautions))]);

async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say('Pairing recorded');
  emit('close');
}
</script>

<template>
  <FormDialog
    title="New pairing"
    submit-text="Record pairing"
    :max-width="760"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <AnimalPicker
      v-model="draft.damId"
      label="Female"
      :animals="animals ?? []"
      sex="female"
      :errors="errorsOf('damId')"
    />
    <AnimalPicker
      v-model="draft.sireId"
      label="Male"
      :animals="animals ?? []"
      sex="male"
      :errors="errorsOf('sires', 'sires.0.animalId')"
    />
    <AnimalPicker
      v-model="draft.secondId"
      label="Second possible male, if any"
      :animals="animals ?? []"
      sex="male"
      clearable
      :errors="errorsOf('sires.1', 'sires.1.animalId')"
    />
    <v-slider
      v-if="draft.secondId"
      v-model="draft.weight"
      label="Chance of the second"
      class="wide"
      :min="5"
      :max="95"
      :step="5"
      hide-details
    >
      <template #append
        ><span class="num">{{ oddsWords(draft.weight / 100) }}</span></template
      >
    </v-slider>
    <v-number-input
      v-model="draft.season"
      label="Season"
      control-variant="hidden"
      :error-messages="errorsOf('season')"
    />
    <DayField v-model="draft.startedOn" label="Together since" :errors="errorsOf('startedOn')" />
    <template #after>
      <v-alert
        v-for="caution in cautions"
        :key="caution"
        type="warning"
        variant="tonal"
        :icon="false"
        class="mt-4"
        >{{ caution }}</v-alert
      >
      <section v-for="(entry, index) in answer ?? []" :key="index" class="mt-4">
        <h3>
          {{
            answer!.length > 1
              ? `With ${index === 0 ? 'the first' : 'the second'} male`
              : 'What this pair can produce'
          }}
        </h3>
        <OutcomeList :outcomes="entry.outcomes.slice(0, 12)" />
        <p v-if="entry.outcomes.length > 12" class="small soft">
          and {{ entry.outcomes.length - 12 }} rarer kinds
        </p>
      </section>
    </template>
  </FormDialog>
</template>
