<script setup lang="ts">
import { COMPLETENESSES, newAnimal, ENTERED_STATUSES, type Origin } from '@karyotome/contract';
import { followingNumber, QUARANTINE_DAYS } from '@karyotome/core';
import { completenessWords } from '@karyotome/words';
import { ref, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { farmToday, statusWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import OwnGenesField from '../../ui/OwnGenesField.vue';
import MassField from '../../ui/MassField.vue';
import TubField from '../records/TubField.vue';
import CardPictures from './CardPictures.vue';
import NewcomerFields from './NewcomerFields.vue';

/** An animal that was not hatched here: its genes are a statement, as it came in. */
/** With the pictures of cards beside the form, where animals are entered from them. */
defineProps<{ withCards?: boolean }>();
const emit = defineEmits<{ close: [] }>();
const cards = useTemplateRef('cards');
const router = useRouter();
const session = useSession();
const notices = useNotices();
const COMPLETENESS_ITEMS = COMPLETENESSES.map((value) => ({ value, title: completenessWords(value) }));
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: 'animal',
  initial: () => ({
    number: '',
    name: '',
    sex: 'female' as 'female' | 'male' | 'unknown',
    genes: '' as string | null,
    sure: 'certain',
    completeness: 'recessives-unknown',
    identifiedBy: session.name,
    hatchedOn: null as string | null,
    massG: null as number | null,
    damId: null as string | null,
    sireId: null as string | null,
    status: 'breeder',
    tubId: null as string | null,
    isFromElsewhere: false,
    origin: newOrigin(),
    quarantineDays: QUARANTINE_DAYS as number | null,
  }),
  schema: newAnimal,
  toInput: ({ isFromElsewhere, origin, quarantineDays, ...values }) => ({
    ...values,
    ...(isFromElsewhere ? { origin, quarantineDays } : {}),
  }),
  send: api.addAnimal,
});
function newOrigin(): Origin {
  return { from: '', how: 'bought', on: farmToday(), price: null, currency: null, papers: null };
}
/** The number after those of the same sex, as long as no other one was typed. */
const proposed = ref('');
const isOpenToProposal = (): boolean => draft.number === '' || draft.number === proposed.value;
async function propose(): Promise<void> {
  const { sex } = draft;
  if (!isOpenToProposal()) return;
  const given = await api.animals({ sex, sort: '-number', limit: '200' }).catch(() => ({ items: [] }));
  const number = followingNumber(given.items.flatMap((one) => (one.clutchId ? [] : one.number)));
  if (sex !== draft.sex || !isOpenToProposal()) return;
  proposed.value = draft.number = number ?? '';
}
watch(() => draft.sex, propose, { immediate: true });
const removal = useWrite(async (id: string) => {
  await api.deleteAnimal(id, 'Undone as it was added');
  await router.push('/animals');
});
async function send(another: boolean): Promise<void> {
  const { number } = draft;
  const sent = await submit();
  if (!sent) return;
  const undo = session.mayDestroy ? async () => void (await removal.run(sent.value.id)) : undefined;
  notices.say(`${number} added`, undo);
  if (another) {
    cards.value?.next();
    return propose();
  }
  emit('close');
  await router.push(`/animals/${sent.value.id}`);
}
</script>

<template>
  <FormDialog
    title="Add an animal"
    submit-text="Add"
    :max-width="withCards ? 1180 : 700"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send(false)"
  >
    <template v-if="withCards" #beside><CardPictures ref="cards" /></template>
    <v-text-field v-model="draft.number" label="Number" :error-messages="errorsOf('number')" />
    <v-text-field v-model="draft.name" label="Name, if any" :error-messages="errorsOf('name')" />
    <v-btn-toggle v-model="draft.sex" class="wide" aria-label="Sex">
      <v-btn value="female">♀ Female</v-btn>
      <v-btn value="male">♂ Male</v-btn>
      <v-btn value="unknown">Not sexed</v-btn>
    </v-btn-toggle>
    <OwnGenesField v-model="draft.genes" :errors="errorsOf('genes')" />
    <v-select
      v-model="draft.sure"
      label="How sure"
      :items="['certain', 'probable', 'possible']"
      :error-messages="errorsOf('sure')"
    />
    <v-select
      v-model="draft.completeness"
      class="wide"
      label="What the statement leaves open"
      :items="COMPLETENESS_ITEMS"
      :error-messages="errorsOf('completeness')"
    />
    <v-text-field v-model="draft.identifiedBy" label="Stated by" :error-messages="errorsOf('identifiedBy')" />
    <DayField v-model="draft.hatchedOn" label="Hatched on" :errors="errorsOf('hatchedOn')" />
    <MassField v-model="draft.massG" label="Weight today" :error-messages="errorsOf('massG')" />
    <AnimalPicker
      v-model="draft.damId"
      label="Dam, if here"
      sex="female"
      clearable
      :errors="errorsOf('damId')"
    />
    <AnimalPicker
      v-model="draft.sireId"
      label="Sire, if here"
      sex="male"
      clearable
      :errors="errorsOf('sireId')"
    />
    <v-select
      v-model="draft.status"
      label="Status"
      :items="ENTERED_STATUSES.map((value) => ({ value, title: statusWords(value) }))"
      :error-messages="errorsOf('status')"
    />
    <TubField v-if="session.mayHouse" v-model="draft.tubId" label="Tub" :errors="errorsOf('tubId')" />
    <v-checkbox
      v-model="draft.isFromElsewhere"
      label="It came from somebody else"
      hide-details
      density="compact"
      class="wide"
    />
    <NewcomerFields
      v-if="draft.isFromElsewhere"
      v-model:origin="draft.origin"
      v-model:quarantine-days="draft.quarantineDays"
      :errors-of="errorsOf"
    />
    <template #more><v-btn :loading="busy" @click="send(true)">Add and next</v-btn></template>
  </FormDialog>
</template>
