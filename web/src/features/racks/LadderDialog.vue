<script setup lang="ts">
import { newLadder, validate, type FieldProblem, type NewLadder } from '@karyotome/contract';
import { mdiClose } from '@mdi/js';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';

const props = defineProps<{ id: string | null; version: number; ladder: NewLadder }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { draft, discard } = useDraft(`ladder.${props.id ?? 'new'}.${props.version}`, () => ({
  name: props.ladder.name,
  steps: props.ladder.steps.map((step) => ({ ...step })),
}));
const local = ref<readonly FieldProblem[]>([]);
const write = useWrite((input: NewLadder) =>
  props.id === null ? api.addLadder(input) : api.changeLadder(props.id, input, props.version),
);
const errorsOf = (field: string): string[] => [
  ...local.value.filter((p) => p.field === field).map((p) => p.message),
  ...write.errorsOf(field),
];
async function submit(): Promise<void> {
  const result = validate(newLadder, draft);
  local.value = result.ok ? [] : result.problems;
  if (!result.ok || !(await write.run(result.value))) return;
  notices.say(`${draft.name} saved`);
  discard();
  emit('close');
}
function addStep(): void {
  const last = draft.steps.at(-1);
  draft.steps.push({ name: '', minG: last?.maxG ?? 0, maxG: null, inside: '' });
}
</script>

<template>
  <v-dialog :model-value="true" max-width="900" @update:model-value="emit('close')">
    <v-card :title="id === null ? 'New ladder' : 'Edit ladder'">
      <v-card-text>
        <form id="ladder-form" class="stack" novalidate @submit.prevent="submit">
          <v-text-field v-model="draft.name" label="Name" :error-messages="errorsOf('name')" />
          <div v-for="(step, index) in draft.steps" :key="index" class="step">
            <v-text-field
              v-model="step.name"
              :label="`Step ${index + 1}`"
              :error-messages="errorsOf(`steps.${index}.name`)"
            />
            <v-number-input
              v-model="step.minG"
              label="From, g"
              control-variant="hidden"
              :error-messages="errorsOf(`steps.${index}.minG`)"
            />
            <v-number-input
              v-model="step.maxG"
              label="Up to, g"
              control-variant="hidden"
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
          <div class="row">
            <v-btn variant="outlined" :disabled="draft.steps.length >= 12" @click="addStep">Add a step</v-btn>
          </div>
          <v-alert
            v-if="write.message.value || errorsOf('steps').length"
            type="error"
            variant="tonal"
            :icon="false"
            role="alert"
            >{{ errorsOf('steps')[0] ? `Steps: ${errorsOf('steps')[0]}` : write.message.value }}</v-alert
          >
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="(discard(), emit('close'))">Discard</v-btn>
        <v-spacer />
        <v-btn type="submit" form="ladder-form" color="primary" variant="flat" :loading="write.busy.value"
          >Save ladder</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
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
