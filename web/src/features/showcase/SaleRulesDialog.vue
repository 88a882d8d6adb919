<script setup lang="ts">
import { saleRules, type SalesSettings } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import CurrencyField from '../../ui/CurrencyField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import MassField from '../../ui/MassField.vue';

/** When the collection calls an animal ready for sale. */
const props = defineProps<{ settings: SalesSettings }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { rules, version } = props.settings;
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `sale-rules.${version}`,
  initial: () => ({ ...rules }),
  schema: saleRules,
  toInput: (values) => values,
  send: (input) => api.changeSaleRules(input, version),
});
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say('Rules saved');
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Ready for sale"
    submit-text="Save rules"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-number-input
      v-model="draft.mealsInRow"
      label="Meals in a row without help"
      control-variant="hidden"
      :min="0"
      :error-messages="errorsOf('mealsInRow')"
    />
    <MassField v-model="draft.massG" label="Weight from" :errors="errorsOf('massG')" />
    <v-switch
      v-model="draft.wholeShed"
      label="The last shed in one piece"
      color="primary"
      class="wide"
      hide-details
    />
    <CurrencyField v-model="draft.currency" :errors="errorsOf('currency')" />
    <p class="wide small soft">
      What is missing is shown at each animal. It keeps nobody from offering one all the same.
    </p>
  </FormDialog>
</template>
