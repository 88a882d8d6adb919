<script setup lang="ts">
import { HANDOVERS, statusCorrection, type OfferView, type StatusEventView } from '@karyotome/contract';
import { addDays, RESERVATION_DAYS } from '@karyotome/core';
import { HANDOVER_WORDS } from '@karyotome/words';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import CurrencyField from '../../ui/CurrencyField.vue';
import PersonField from './PersonField.vue';

/** An animal is reserved or sold; or what was recorded of that is completed. */
const props = defineProps<{
  animal: { readonly id: string; readonly number: string };
  kind: 'reserved' | 'sold';
  offer: OfferView;
  /** Corrected instead of a new one being made. */
  event: StatusEventView | null;
}>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { animal, kind, offer, event } = props;
const told = event?.kind === kind ? event : null;
const known: StatusEventView['details'] = told?.details ?? {};
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `status.${animal.id}.${kind}.${event?.id ?? 'new'}`,
  initial: () => ({
    on: (told?.on ?? farmToday()) as string | null,
    personId: event?.person?.id ?? (null as string | null),
    deposit: null as number | null,
    until: (told ? null : addDays(farmToday(), RESERVATION_DAYS)) as string | null,
    price: told ? null : offer.price,
    currency: offer.currency,
    paidOn: null as string | null,
    handedOverOn: null as string | null,
    how: null as (typeof HANDOVERS)[number] | null,
    ...(filled(known) as { currency?: string }),
    note: told?.note ?? (null as string | null),
  }),
  schema: statusCorrection,
  toInput: ({ on, note, personId, currency, deposit, until, price, paidOn, handedOverOn, how }) => ({
    ...filled({ on, note }),
    kind,
    details: filled(
      kind === 'reserved'
        ? { personId, currency, deposit, until }
        : { personId, currency, price, paidOn, handedOverOn, how },
    ),
  }),
  send: async (input) => {
    if (told) return (await api.correctStatusEvent(told.id, input)).id;
    const { ids } = await api.addStatusEvents({ ...input, animalIds: [animal.id] });
    return ids[0]!;
  },
});
async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  const done = kind === 'reserved' ? 'reserved' : 'sold';
  notices.say(`${animal.number} ${told ? 'corrected' : done}`, async () => {
    await api.voidStatusEvent(sent.value, 'Undone');
  });
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="`${animal.number}: ${kind === 'reserved' ? 'reserve' : 'sell'}`"
    :submit-text="told ? 'Save' : kind === 'reserved' ? 'Reserve' : 'Record the sale'"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <PersonField
      v-model="draft.personId"
      :label="kind === 'reserved' ? 'For whom' : 'To whom'"
      :clearable="kind === 'sold'"
      :errors="errorsOf('details.personId')"
    />
    <DayField
      v-model="draft.on"
      :label="kind === 'reserved' ? 'Reserved on' : 'Sold on'"
      :errors="errorsOf('on')"
    />
    <template v-if="kind === 'reserved'">
      <DayField
        v-model="draft.until"
        label="Until, the day included"
        allows-future
        :errors="errorsOf('details.until')"
      />
      <v-number-input
        v-model="draft.deposit"
        label="Deposit"
        :precision="null"
        :min="0"
        control-variant="hidden"
        :error-messages="errorsOf('details.deposit')"
      />
    </template>
    <v-number-input
      v-else
      v-model="draft.price"
      label="Price"
      :precision="null"
      :min="0"
      control-variant="hidden"
      :error-messages="errorsOf('details.price')"
    />
    <CurrencyField v-model="draft.currency" :errors="errorsOf('details.currency')" />
    <template v-if="kind === 'sold'">
      <DayField v-model="draft.paidOn" label="Paid on" :errors="errorsOf('details.paidOn')" />
      <DayField
        v-model="draft.handedOverOn"
        label="Handed over on"
        :errors="errorsOf('details.handedOverOn')"
      />
      <v-select
        v-model="draft.how"
        label="How"
        clearable
        :items="HANDOVERS.map((value) => ({ value, title: HANDOVER_WORDS[value] }))"
        :error-messages="errorsOf('details.how')"
      />
    </template>
    <v-text-field v-model="draft.note" label="Note, if any" class="wide" :error-messages="errorsOf('note')" />
    <p v-if="kind === 'reserved'" class="wide small soft">
      After that day it is for sale again by itself, and Today says so.
    </p>
    <p v-else class="wide small soft">
      Crossing a border takes CITES permits; many places license selling. Local rules decide.
    </p>
  </FormDialog>
</template>
