<script setup lang="ts">
import { newLadder, type NewLadder } from '@karyotome/contract';
import { mdiClose } from '@mdi/js';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import MassField from '../../ui/MassField.vue';

const props = defineProps<{ id: string | null; version: number; ladder: NewLadder }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `ladder.${props.id ?? 'new'}.${props.version}`,
  initial: (): NewLadder => ({
    name: props.ladder.name,
    steps: props.ladder.steps.map((step) => ({ ...step })),
  }),
  schema: newLadder,
  toInput: (values) => values,
  send: (input) =>
    props.id === null ? api.addLadder(input) : api.changeLadder(props.id, input, props.version),
});
async function send(): Promise<void> {
  const { name } = draft;
  if (!(await submit())) return;
  notices.say(`${name} saved`);
  emit('close');
}
function addStep(): void {
  const last = draft.steps.at(-1);
  draft.steps.push({ name: '', minG: last?.maxG ?? 0, maxG: null, inside: '' });
}
</script>

<template>
  <FormDialog
    :title="id === null ? 'New ladder' : 'Edit ladder'"
    submit-text="Save ladder"
    :max-width="900"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-text-field v-model="draft.name" label="Name" class="wide" :error-messages="errorsOf('name')" />
    <div v-for="(step, index) in draft.steps" :key="index" class="step wide">
      <v-text-field
        v-model="step.name"
        :label="`Step ${index + 1}`"
        :error-messages="errorsOf(`steps.${index}.name`)"
      />
      <MassField v-model="step.minG" label="From" :error-messages="errorsOf(`steps.${index}.minG`)" />
      <MassField
        v-model="step.maxG"
        label="Up to"
        clearable
        placeholder="no end"
        :error-messages="errorsOf(`steps.${index}.maxG`)"
      />
      <v-text-field
        v-model="step.inside"
        label="Inside measure"
        :error-messages="errorsOf(`steps.${index}.inside`)"
      />
      <v-number-input
        v-model="step.mealsBefore"
        label="Meals before"
        control-variant="hidden"
        clearable
        :error-messages="errorsOf(`steps.${index}.mealsBefore`)"
      />
      <v-btn
        :icon="mdiClose"
        variant="text"
        :aria-label="`Remove step ${index + 1}`"
        :disabled="draft.steps.length === 1"
        @click="draft.steps.splice(index, 1)"
      />
    </div>
    <div class="row wide">
      <v-btn variant="outlined" :disabled="draft.steps.length >= 12" @click="addStep">Add a step</v-btn>
    </div>
  </FormDialog>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr 1.4fr 1fr auto;
  gap: 8px;
  align-items: start;
}
@media (width < 760px) {
  .step {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
