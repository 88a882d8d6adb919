<script setup lang="ts">
import { pricesInput, type SaleLine } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { sexSign } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import CurrencyField from '../../ui/CurrencyField.vue';

/** Prices of several animals, typed down a column. */
const props = defineProps<{ lines: readonly SaleLine[] }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const lines = [...props.lines];
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `prices.${lines.map(({ id, offer }) => `${id}.${offer.version}`).join('.')}`,
  initial: () => ({
    currency: lines[0]?.offer.currency ?? 'EUR',
    prices: lines.map(({ id, offer }) => ({ animalId: id, price: offer.price })),
  }),
  schema: pricesInput,
  toInput: (values) => values,
  send: api.changePrices,
});
/** The price typed first goes for all that have none. */
function fillDown(): void {
  const first = draft.prices.find(({ price }) => price !== null)?.price ?? null;
  for (const line of draft.prices) line.price ??= first;
}
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(lines.length === 1 ? 'Price saved' : `${lines.length} prices saved`);
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Prices"
    submit-text="Save prices"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <div v-for="(line, i) in lines" :key="line.id" class="wide line">
      <span>
        <strong>{{ line.animal.number }}</strong> {{ sexSign(line.animal.sex) }}
        <span class="small soft">{{ line.animal.label }}</span>
      </span>
      <v-number-input
        v-model="draft.prices[i]!.price"
        :label="`Price of ${line.animal.number}`"
        :precision="null"
        :min="0"
        control-variant="hidden"
        hide-details="auto"
        :error-messages="errorsOf(`prices.${i}.price`)"
      />
    </div>
    <CurrencyField v-model="draft.currency" :errors="errorsOf('currency')" />
    <template #actions><v-btn @click="fillDown">Same for all without one</v-btn></template>
  </FormDialog>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 1fr 160px;
  gap: 12px;
  align-items: center;
}
</style>
