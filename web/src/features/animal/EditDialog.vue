<script setup lang="ts">
import { animalChange, type AnimalView } from '@karyotome/contract';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import DayField from '../../ui/DayField.vue';
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
const removal = useWrite(api.deleteAnimal);
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(`${props.animal.number} changed`);
  emit('close');
}
async function remove(): Promise<void> {
  if (!(await removal.run(props.animal.id))) return;
  discard();
  notices.say(`${props.animal.number} deleted; its number stays used`);
  await router.push('/animals');
}
</script>

<template>
  <FormDialog
    :title="`Edit ${animal.number}`"
    submit-text="Save"
    :busy="busy"
    :general="() => removal.message.value ?? general()"
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
    <template #actions
      ><v-btn color="error" :loading="removal.busy.value" @click="remove"
        >Delete: entered by mistake</v-btn
      ></template
    >
  </FormDialog>
</template>
