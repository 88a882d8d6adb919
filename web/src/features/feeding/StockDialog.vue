<script setup lang="ts">
import { newStockEntry, PREY_NAMES, type NewStockEntry } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';

/** What came into the freezer, was counted there, or was thrown away. */
const props = defineProps<{ begin: { prey: string; kind: NewStockEntry['kind'] } }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const voiding = useWrite((id: string) => api.voidStock(id, 'Undone'));
const KINDS = [
  { value: 'receipt', title: 'Came in' },
  { value: 'count', title: 'Counted' },
  { value: 'loss', title: 'Thrown away' },
] as const;
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: 'stock',
  initial: () => ({
    ...props.begin,
    quantity: null as number | null,
    on: farmToday() as string | null,
    note: null as string | null,
  }),
  schema: newStockEntry,
  toInput: filled,
  send: api.addStock,
});
async function send(): Promise<void> {
  const { quantity, prey } = draft;
  const sent = await submit();
  if (!sent) return;
  notices.say(`${quantity} ${prey} booked`, async () => {
    await voiding.run(sent.value.id);
  });
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Freezer"
    submit-text="Book"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-btn-toggle v-model="draft.kind" class="wide" aria-label="What happened">
      <v-btn v-for="kind in KINDS" :key="kind.value" :value="kind.value">{{ kind.title }}</v-btn>
    </v-btn-toggle>
    <v-select v-model="draft.prey" label="Prey" :items="[...PREY_NAMES]" :error-messages="errorsOf('prey')" />
    <v-number-input
      v-model="draft.quantity"
      label="How many"
      control-variant="hidden"
      :min="0"
      :error-messages="errorsOf('quantity')"
    />
    <DayField v-model="draft.on" label="Day" :errors="errorsOf('on')" />
    <v-text-field v-model="draft.note" label="Note, if any" :error-messages="errorsOf('note')" />
    <p v-if="draft.kind === 'count'" class="wide small soft">
      What lies there on the evening of that day, after feeding. It takes the place of all that was booked
      before.
    </p>
  </FormDialog>
</template>
