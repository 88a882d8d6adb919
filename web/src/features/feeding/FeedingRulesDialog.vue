<script setup lang="ts">
import { rulesChange } from '@karyotome/contract';
import type { FeedingRules, OrderRules } from '@karyotome/core';
import { mdiClose } from '@mdi/js';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import MassField from '../../ui/MassField.vue';

/** The rules by which meals fall due. */
const props = defineProps<{ rules: FeedingRules; order: OrderRules; version: number }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'].map(
  (title, i) => ({ value: i + 1, title }),
);
const percent = (share: number): number => Math.round(share * 1000) / 10;
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `feeding-rules.${props.version}`,
  initial: () => ({
    ...props.rules,
    fastMonths: [...props.rules.fastMonths],
    afterRestShare: percent(props.rules.afterRestShare) as number | null,
    classes: props.rules.classes.map(({ belowG, share, everyDays }) => ({
      belowG: belowG as number | null,
      share: percent(share) as number | null,
      everyDays: everyDays as number | null,
    })),
    leadDays: props.order.leadDays as number | null,
    service: percent(props.order.service) as number | null,
  }),
  schema: rulesChange,
  toInput: ({ classes, afterRestShare, leadDays, service, ...rest }) => ({
    feeding: {
      ...rest,
      afterRestShare: (afterRestShare ?? 0) / 100,
      classes: classes.map((one) => ({ ...one, share: (one.share ?? 0) / 100 })),
    },
    order: { leadDays, service: (service ?? 0) / 100 },
  }),
  send: (input) => api.changeFeedingRules(input, props.version),
});
function addClass(): void {
  const at = draft.classes.length - 1;
  const before = draft.classes[at - 1]?.belowG ?? 200;
  draft.classes.splice(at, 0, { belowG: before + 300, share: 8, everyDays: 12 });
}
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say('Rules of feeding saved');
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Rules of feeding"
    submit-text="Save rules"
    :max-width="720"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <div v-for="(one, index) in draft.classes" :key="index" class="class wide">
      <MassField
        v-if="one.belowG !== null"
        v-model="one.belowG"
        label="Up to"
        :error-messages="errorsOf(`feeding.classes.${index}.belowG`)"
      />
      <p v-else class="rest">All heavier ones</p>
      <v-number-input
        v-model="one.share"
        label="Prey, % of weight"
        :precision="1"
        control-variant="hidden"
        :error-messages="errorsOf(`feeding.classes.${index}.share`)"
      />
      <v-number-input
        v-model="one.everyDays"
        label="Every … days"
        control-variant="hidden"
        :error-messages="errorsOf(`feeding.classes.${index}.everyDays`)"
      />
      <v-btn
        :icon="mdiClose"
        variant="text"
        :aria-label="`Remove class ${index + 1}`"
        :disabled="one.belowG === null"
        @click="draft.classes.splice(index, 1)"
      />
    </div>
    <p v-for="message in errorsOf('feeding.classes')" :key="message" class="wide small error">
      The weights {{ message }}
    </p>
    <div class="row wide">
      <v-btn variant="outlined" size="small" :disabled="draft.classes.length >= 8" @click="addClass"
        >Add a weight class</v-btn
      >
    </div>
    <v-select
      v-model="draft.species"
      label="Usual prey"
      :items="[
        { value: 'rat', title: 'Rats' },
        { value: 'mouse', title: 'Mice' },
      ]"
    />
    <v-number-input
      v-model="draft.firstMealAfterShedDays"
      label="First meal, days after the first shed"
      control-variant="hidden"
      :error-messages="errorsOf('feeding.firstMealAfterShedDays')"
    />
    <v-number-input
      v-model="draft.restDays"
      label="Rest after a regurgitation, days"
      control-variant="hidden"
      :error-messages="errorsOf('feeding.restDays')"
    />
    <v-number-input
      v-model="draft.afterRestShare"
      label="Then a meal of, %"
      control-variant="hidden"
      :error-messages="errorsOf('feeding.afterRestShare')"
    />
    <v-checkbox v-model="draft.offerInShed" label="Offered in shed" hide-details density="compact" />
    <v-checkbox v-model="draft.offerGravid" label="Offered when gravid" hide-details density="compact" />
    <MassField v-model="draft.adultG" label="May fast from" :error-messages="errorsOf('feeding.adultG')" />
    <v-select v-model="draft.fastMonths" label="Months of fasting" :items="MONTHS" multiple />
    <v-number-input
      v-model="draft.fastingEveryDays"
      label="A fasting one is offered every … days"
      control-variant="hidden"
      :error-messages="errorsOf('feeding.fastingEveryDays')"
    />
    <v-number-input
      v-model="draft.cleanEveryDays"
      label="Tubs are cleaned every … days"
      control-variant="hidden"
      :error-messages="errorsOf('feeding.cleanEveryDays')"
    />
    <v-number-input
      v-model="draft.leadDays"
      label="From order to delivery, days"
      control-variant="hidden"
      :error-messages="errorsOf('order.leadDays')"
    />
    <v-number-input
      v-model="draft.service"
      label="Stock lasts until then with, %"
      control-variant="hidden"
      :precision="1"
      :error-messages="errorsOf('order.service')"
    />
  </FormDialog>
</template>

<style scoped>
.class {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr auto;
  gap: 8px;
  align-items: start;
}
.rest {
  align-self: center;
}
.error {
  color: rgb(var(--v-theme-error));
}
</style>
