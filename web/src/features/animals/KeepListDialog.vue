<script setup lang="ts">
import { animalListInput } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';

/** Keeps the words of a filter under a name, for all of the collection. */
const props = defineProps<{ words: string }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const { draft, discard, submit, busy, errorsOf, general } = useForm({
  key: 'animal-list',
  initial: () => ({ name: '' }),
  schema: animalListInput,
  toInput: ({ name }) => ({ name, words: props.words }),
  send: api.addAnimalList,
});
async function keep(): Promise<void> {
  const { name } = draft;
  if (!(await submit())) return;
  notices.say(`List kept: ${name}`);
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Keep as a list"
    :subtitle="words"
    submit-text="Keep"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="keep"
  >
    <v-text-field
      v-model="draft.name"
      label="Name"
      class="wide"
      autofocus
      :error-messages="errorsOf('name')"
    />
    <p class="wide small soft">
      The words are kept, not the animals: whoever fits them later is in the list too. All of the collection
      see it.
    </p>
  </FormDialog>
</template>
