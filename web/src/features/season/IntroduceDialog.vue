<script setup lang="ts">
import { introduction } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useAnimalSummary, useBoardFemale, useBoardMale, useRelatedMates } from '../../stores/queries.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import OutcomeList from '../../ui/OutcomeList.vue';
import { useOdds } from '../../workers/useOdds.ts';
import { introductionCautions } from './season-words.ts';

/** A male is put to a female: the reasons against it and what they can give, before they are together. */
const props = defineProps<{ femaleId: string | null; maleId: string | null }>();
const emit = defineEmits<{ close: [] }>();
const catalogue = useCatalogue();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `introduction.${props.femaleId ?? ''}.${props.maleId ?? ''}`,
  initial: () => ({
    damId: props.femaleId,
    sireId: props.maleId,
    on: farmToday() as string | null,
  }),
  schema: introduction,
  toInput: (values) => filled(values),
  send: api.introduce,
});
const { data: damSummary } = useAnimalSummary(() => draft.damId);
const { data: sireSummary } = useAnimalSummary(() => draft.sireId);
const question = computed(() => {
  const [dam, sire] = [damSummary.value, sireSummary.value];
  return dam && sire ? { dam: dam.label, sires: [sire.label] } : null;
});
const { answer } = useOdds(question);
const { data: dam } = useBoardFemale(() => draft.damId);
const { data: sire } = useBoardMale(() => draft.sireId);
const { data: related } = useRelatedMates(() => draft.sireId);
const cautions = computed(() => {
  const [female, male] = [dam.value, sire.value];
  if (female && male && female.id === draft.damId && male.id === draft.sireId)
    return introductionCautions(female, male, related.value ?? [], catalogue.value);
  return [...new Set((answer.value ?? []).flatMap((entry) => entry.cautions))];
});
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(
    `${sireSummary.value?.number ?? 'The male'} put to ${damSummary.value?.number ?? 'the female'}`,
  );
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Introduce a male"
    :submit-text="cautions.length > 0 ? 'Introduce anyway' : 'Introduce'"
    :max-width="680"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-alert v-if="cautions.length > 0" type="warning" variant="tonal" :icon="false" class="wide">
      <strong>Before you do</strong>
      <ul class="cautions">
        <li v-for="caution in cautions" :key="caution">{{ caution }}</li>
      </ul>
    </v-alert>
    <AnimalPicker v-model="draft.damId" label="Female" sex="female" :errors="errorsOf('damId')" />
    <AnimalPicker v-model="draft.sireId" label="Male" sex="male" :errors="errorsOf('sireId')" />
    <DayField v-model="draft.on" label="Together since" :errors="errorsOf('on')" />
    <p class="wide small soft">
      A male that is with another female leaves her on that day. Earlier mates of hers stay possible fathers
      from stored sperm, by the share in your rules. Stay near while they meet, and part them if one bites.
    </p>
    <template #after>
      <section v-if="answer" class="mt-4">
        <h3>What this pair can produce</h3>
        <OutcomeList :outcomes="answer[0]!.outcomes.slice(0, 8)" />
        <p v-if="answer[0]!.outcomes.length > 8" class="small soft">
          and {{ answer[0]!.outcomes.length - 8 }} rarer kinds
        </p>
      </section>
    </template>
  </FormDialog>
</template>

<style scoped>
.cautions {
  margin: 4px 0 0;
  padding-left: 20px;
}
</style>
