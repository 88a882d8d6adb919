<script setup lang="ts">
import { wishInput, type WishView } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { usePairings, useSalesSettings } from '../../stores/queries.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import OwnGenesField from '../../ui/OwnGenesField.vue';
import CurrencyField from '../../ui/CurrencyField.vue';
import PersonField from './PersonField.vue';

/** What somebody waits for. */
const props = defineProps<{ wish: WishView | null }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { data: settings } = useSalesSettings();
const { data: pairings } = usePairings();
const { wish } = props;
/** What is typed, of nobody yet. */
const EMPTY = {
  must: null as string | null,
  mustNot: null as string | null,
  sex: null as 'female' | 'male' | null,
  priceLimit: null as number | null,
  note: null as string | null,
};
const { must, mustNot, sex, priceLimit, note } = wish ?? EMPTY;
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `wish.${wish?.id ?? 'new'}.${wish?.version ?? 0}`,
  initial: () => ({
    personId: wish?.person.id ?? (null as string | null),
    must: must as string | null,
    mustNot,
    sex,
    priceLimit,
    currency: wish?.currency ?? settings.value?.rules.currency ?? 'EUR',
    pairingId: wish?.pairing?.id ?? (null as string | null),
    joinedOn: (wish?.joinedOn ?? farmToday()) as string | null,
    note,
  }),
  schema: wishInput,
  toInput: filled,
  send: async (input) => {
    if (wish === null) await api.addWish(input);
    else await api.changeWish(wish.id, input, wish.version);
  },
});
const pairingItems = computed(() =>
  (pairings.value ?? []).map(({ id, season, dam, sires }) => ({
    value: id,
    title: `${season}: ${dam.number} × ${sires.map(({ number }) => number).join(' or ')}`,
  })),
);
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say('On the waiting list');
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Waiting list"
    submit-text="Save"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <PersonField v-model="draft.personId" label="Who waits" :errors="errorsOf('personId')" />
    <OwnGenesField v-model="draft.must" label="Must have" :errors="errorsOf('must')" />
    <OwnGenesField v-model="draft.mustNot" label="Must not have, if anything" :errors="errorsOf('mustNot')" />
    <v-select
      v-model="draft.sex"
      label="Sex"
      :items="[
        { value: null, title: 'Any' },
        { value: 'female', title: 'Female' },
        { value: 'male', title: 'Male' },
      ]"
      :error-messages="errorsOf('sex')"
    />
    <DayField v-model="draft.joinedOn" label="Waits since" :errors="errorsOf('joinedOn')" />
    <v-number-input
      v-model="draft.priceLimit"
      label="Up to what price"
      :precision="null"
      :min="0"
      control-variant="hidden"
      :error-messages="errorsOf('priceLimit')"
    />
    <CurrencyField v-model="draft.currency" :errors="errorsOf('currency')" />
    <v-autocomplete
      v-model="draft.pairingId"
      label="Only from this pairing"
      class="wide"
      clearable
      :items="pairingItems"
      :error-messages="errorsOf('pairingId')"
    />
    <v-text-field v-model="draft.note" label="Note, if any" class="wide" :error-messages="errorsOf('note')" />
  </FormDialog>
</template>
