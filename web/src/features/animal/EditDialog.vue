<script setup lang="ts">
import { animalChange, type AnimalView } from '@karyotome/contract';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import DayField from '../../ui/DayField.vue';
import DeleteDialog from '../../ui/DeleteDialog.vue';
import FormDialog from '../../ui/FormDialog.vue';

const props = defineProps<{ animal: AnimalView }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const notices = useNotices();
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `edit.${props.animal.id}.${props.animal.version}`,
  initial: () => ({
    name: props.animal.name ?? '',
    hatchedOn: props.animal.hatchedOn,
    damId: props.animal.damId,
    sireId: props.animal.sireId,
    note: props.animal.note ?? '',
  }),
  schema: animalChange,
  toInput: ({ damId, sireId, ...rest }) => {
    const changesParents = damId !== props.animal.damId || sireId !== props.animal.sireId;
    return { ...rest, ...(changesParents ? { damId, sireId } : {}) };
  },
  send: (change) => api.changeAnimal(props.animal.id, change, props.animal.version),
});
const session = useSession();
const isDeleting = ref(false);
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(`${props.animal.number} changed`);
  emit('close');
}
async function leave(): Promise<void> {
  discard();
  await router.push('/animals');
}
</script>

<template>
  <FormDialog
    :title="`Edit ${animal.number}`"
    submit-text="Save"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-text-field v-model="draft.name" label="Name" :error-messages="errorsOf('name')" />
    <DayField v-model="draft.hatchedOn" label="Hatched on" :errors="errorsOf('hatchedOn')" />
    <template v-if="!animal.clutchId">
      <AnimalPicker v-model="draft.damId" label="Dam" sex="female" clearable :errors="errorsOf('damId')" />
      <AnimalPicker v-model="draft.sireId" label="Sire" sex="male" clearable :errors="errorsOf('sireId')" />
    </template>
    <v-textarea
      v-model="draft.note"
      label="Private note, never published"
      class="wide"
      rows="3"
      :error-messages="errorsOf('note')"
    />
    <template #actions>
      <v-btn v-if="session.mayDestroy" color="error" @click="isDeleting = true">Delete</v-btn>
    </template>
    <template #after>
      <DeleteDialog
        v-if="isDeleting"
        :name="animal.number"
        text="The animal goes with everything recorded of it, its pictures, labels and opinions."
        note="Its number stays used. An animal that died or was sold is not deleted: change its status instead."
        :send="(reason) => api.deleteAnimal(animal.id, reason)"
        :restored="() => router.push(`/animals/${animal.id}`)"
        @close="isDeleting = false"
        @deleted="leave"
      />
    </template>
  </FormDialog>
</template>
