<script setup lang="ts">
import { planInput, type FeedingView, type PlanInput } from '@karyotome/contract';
import { REFUSAL_STEPS } from '@karyotome/core';
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FormDialog from '../../ui/FormDialog.vue';

/** A plan: how young are started, and what is tried in turn when one refuses. */
const props = defineProps<{ plan: FeedingView['plans'][number] | null }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();

interface StepDraft {
  key: string;
  name: string;
  tries: number | null;
  state: string | null;
  species: string | null;
  afterDays: number | null;
  onlyLosing: boolean;
  caution: string;
}
const toDraft = (step: PlanInput['steps'][number]): StepDraft => ({
  key: step.key,
  name: step.name,
  tries: step.tries,
  state: step.change?.state ?? null,
  species: step.change?.species ?? null,
  afterDays: step.afterDays ?? null,
  onlyLosing: step.onlyLosing ?? false,
  caution: step.caution ?? '',
});
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `plan.${props.plan?.id ?? 'new'}.${props.plan?.version ?? 0}`,
  initial: () => ({
    name: props.plan?.name ?? '',
    meals: (props.plan?.start.meals ?? 0) as number | null,
    species: props.plan?.start.species ?? 'rat',
    state: props.plan?.start.state ?? 'frozen-thawed',
    steps: (props.plan?.steps ?? REFUSAL_STEPS).map(toDraft),
  }),
  schema: planInput,
  toInput: ({ name, meals, species, state, steps }) => ({
    name,
    start: { ...(meals === null ? {} : { meals }), species, state },
    steps: steps.map((step) => ({
      key: step.key,
      name: step.name,
      ...(step.tries === null ? {} : { tries: step.tries }),
      ...(step.state || step.species
        ? {
            change: {
              ...(step.state ? { state: step.state } : {}),
              ...(step.species ? { species: step.species } : {}),
            },
          }
        : {}),
      ...(step.afterDays ? { afterDays: step.afterDays } : {}),
      ...(step.onlyLosing ? { onlyLosing: true } : {}),
      ...(step.caution ? { caution: step.caution } : {}),
    })),
  }),
  send: (input) =>
    props.plan === null
      ? api.addFeedingPlan(input)
      : api.changeFeedingPlan(props.plan.id, input, props.plan.version),
});
const removing = useWrite(api.removeFeedingPlan);
const STATES = [
  { value: 'frozen-thawed', title: 'Frozen-thawed' },
  { value: 'fresh-killed', title: 'Freshly killed' },
  { value: 'live', title: 'Live' },
];
const SPECIES = [
  { value: 'rat', title: 'Rat' },
  { value: 'mouse', title: 'Mouse' },
];
function add(): void {
  draft.steps.push(toDraft({ key: `own-${crypto.randomUUID().slice(0, 8)}`, name: '', tries: 2 }));
}
function shift(index: number, by: number): void {
  const [step] = draft.steps.splice(index, 1);
  draft.steps.splice(index + by, 0, step!);
}
async function send(): Promise<void> {
  const { name } = draft;
  if (!(await submit())) return;
  notices.say(`${name} saved`);
  emit('close');
}
async function remove(): Promise<void> {
  const { id, version, name, builtIn } = props.plan!;
  if (!(await removing.run(id, version))) {
    notices.warn(removing.message.value ?? 'It could not be removed');
    return;
  }
  discard();
  notices.say(builtIn ? `${name} is as it was built in` : `${name} removed`);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="plan === null ? 'A plan of your own' : 'Edit plan'"
    submit-text="Save plan"
    :max-width="860"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-text-field v-model="draft.name" label="Name" class="wide" :error-messages="errorsOf('name')" />
    <v-number-input
      v-model="draft.meals"
      label="First meals with this prey"
      control-variant="hidden"
      :error-messages="errorsOf('start.meals')"
    />
    <v-select v-model="draft.species" label="Prey" :items="SPECIES" />
    <v-select v-model="draft.state" label="State" :items="STATES" />
    <h3 class="wide">When it refuses, one after the other</h3>
    <fieldset v-for="(step, index) in draft.steps" :key="step.key" class="step wide">
      <legend class="small soft">Step {{ index + 1 }}</legend>
      <v-text-field
        v-model="step.name"
        label="What is tried"
        class="name"
        :error-messages="errorsOf(`steps.${index}.name`)"
      />
      <v-number-input
        v-model="step.tries"
        label="Tries"
        control-variant="hidden"
        :error-messages="errorsOf(`steps.${index}.tries`)"
      />
      <v-select v-model="step.state" label="State" :items="STATES" clearable />
      <v-select v-model="step.species" label="Prey" :items="SPECIES" clearable />
      <v-number-input
        v-model="step.afterDays"
        label="Not before … days"
        control-variant="hidden"
        clearable
        :error-messages="errorsOf(`steps.${index}.afterDays`)"
      />
      <v-checkbox v-model="step.onlyLosing" label="Only losing weight" hide-details density="compact" />
      <div class="tools">
        <v-btn
          :icon="mdiArrowUp"
          size="small"
          variant="text"
          :aria-label="`Step ${index + 1} earlier`"
          :disabled="index === 0"
          @click="shift(index, -1)"
        />
        <v-btn
          :icon="mdiArrowDown"
          size="small"
          variant="text"
          :aria-label="`Step ${index + 1} later`"
          :disabled="index === draft.steps.length - 1"
          @click="shift(index, 1)"
        />
        <v-btn
          :icon="mdiClose"
          size="small"
          variant="text"
          :aria-label="`Remove step ${index + 1}`"
          :disabled="draft.steps.length === 1"
          @click="draft.steps.splice(index, 1)"
        />
      </div>
      <v-text-field
        v-model="step.caution"
        label="Caution, shown wherever the step is due"
        class="caution"
        :error-messages="errorsOf(`steps.${index}.caution`)"
      />
    </fieldset>
    <div class="row wide">
      <v-btn variant="outlined" :disabled="draft.steps.length >= 30" @click="add">Add a step</v-btn>
    </div>
    <template #actions>
      <v-btn v-if="plan && (plan.changed || !plan.builtIn)" :loading="removing.busy.value" @click="remove">{{
        plan.builtIn ? 'As it was built in' : 'Remove'
      }}</v-btn>
    </template>
  </FormDialog>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 80px 1.2fr 1fr 1.2fr auto;
  gap: 8px;
  align-items: start;
  padding: 10px 12px;
  border: 1px solid var(--hair);
  border-radius: 10px;
}
.name {
  grid-column: 1 / 5;
}
.tools {
  grid-row: 1;
  grid-column: 5;
}
.caution {
  grid-column: 1 / -1;
}
@media (width < 760px) {
  .step {
    grid-template-columns: 1fr 1fr;
  }
  .name,
  .tools {
    grid-row: auto;
    grid-column: 1 / -1;
  }
}
</style>
