<script setup lang="ts">
import { projectAnimalInput, type ProjectAnimal, type ProjectSummary } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import FormDialog from '../../ui/FormDialog.vue';

/** Puts an animal into a project and says why: also what was held back from a step of its plan. */
const props = defineProps<{
  project: Pick<ProjectSummary, 'id' | 'name' | 'plan'> & {
    readonly projectAnimals?: readonly ProjectAnimal[];
  };
  /** Who it is about, where that is known. */
  animalId?: string | undefined;
  step?: number | undefined;
}>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const known = props.project.projectAnimals?.find(({ animal }) => animal.id === props.animalId);
const { draft, discard, submit, busy, errorsOf, general } = useForm({
  key: `project-animal-${props.project.id}-${props.animalId ?? `step-${props.step ?? ''}`}`,
  initial: () => ({
    animalId: props.animalId ?? (null as string | null),
    reason: known?.reason ?? '',
    step: props.step ?? known?.step ?? (null as number | null),
  }),
  schema: projectAnimalInput,
  toInput: ({ animalId, ...rest }) => ({ ...(animalId ? { animalId } : {}), ...rest }),
  send: (input) => api.addProjectAnimal(props.project.id, input),
});
const steps = computed(() =>
  (props.project.plan?.route.steps ?? []).flatMap(({ keep }, value) =>
    keep ? [{ value, title: `Step ${value + 1}: a ${keep.sex} ${keep.label}` }] : [],
  ),
);
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(`${props.project.name}: kept`);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="step === undefined ? 'An animal of the project' : 'Who was held back?'"
    submit-text="Keep"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <AnimalPicker v-model="draft.animalId" label="Animal" class="wide" :errors="errorsOf('animalId')" />
    <v-select
      v-if="steps.length > 0"
      v-model="draft.step"
      label="Held back from"
      class="wide"
      :items="steps"
      clearable
      hint="The plan goes on with it."
      persistent-hint
      :error-messages="errorsOf('step')"
    />
    <v-text-field
      v-model="draft.reason"
      label="Why"
      class="wide"
      placeholder="For example: the cleanest pattern of the clutch"
      :error-messages="errorsOf('reason')"
    />
  </FormDialog>
</template>
