<script setup lang="ts">
import {
  animalChange,
  STATUSES,
  validate,
  type AnimalChange,
  type AnimalView,
  type FieldProblem,
} from '@karyotome/contract';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { statusWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useAnimals } from '../../stores/queries.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import DayField from '../../ui/DayField.vue';

const props = defineProps<{ animal: AnimalView }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const notices = useNotices();
const { data: animals } = useAnimals();
const { draft, discard } = useDraft(`edit.${props.animal.id}.${props.animal.version}`, () => ({
  name: props.animal.name ?? '',
  hatchedOn: props.animal.hatchedOn,
  status: props.animal.status,
  damId: props.animal.damId,
  sireId: props.animal.sireId,
  note: props.animal.note ?? '',
}));
const local = ref<readonly FieldProblem[]>([]);
const write = useWrite((change: AnimalChange) =>
  api.changeAnimal(props.animal.id, change, props.animal.version),
);
const removal = useWrite(api.deleteAnimal);
const errorsOf = (field: string): string[] => [
  ...local.value.filter((p) => p.field === field).map((p) => p.message),
  ...write.errorsOf(field),
];
async function submit(): Promise<void> {
  const { damId, sireId, ...rest } = draft;
  const changesParents = damId !== props.animal.damId || sireId !== props.animal.sireId;
  const result = validate(animalChange, { ...rest, ...(changesParents ? { damId, sireId } : {}) });
  local.value = result.ok ? [] : result.problems;
  if (!result.ok || !(await write.run(result.value))) return;
  discard();
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
  <v-dialog :model-value="true" @update:model-value="emit('close')">
    <v-card :title="`Edit ${animal.number}`">
      <v-card-text>
        <form id="edit-form" class="fields" novalidate @submit.prevent="submit">
          <v-text-field v-model="draft.name" label="Name" :error-messages="errorsOf('name')" />
          <v-select
            v-model="draft.status"
            label="Status"
            :items="STATUSES.map((value) => ({ value, title: statusWords(value) }))"
            :error-messages="errorsOf('status')"
          />
          <DayField v-model="draft.hatchedOn" label="Hatched on" :errors="errorsOf('hatchedOn')" />
          <template v-if="!animal.clutchId">
            <AnimalPicker
              v-model="draft.damId"
              label="Dam"
              :animals="animals ?? []"
              sex="female"
              clearable
              :errors="errorsOf('damId')"
            />
            <AnimalPicker
              v-model="draft.sireId"
              label="Sire"
              :animals="animals ?? []"
              sex="male"
              clearable
              :errors="errorsOf('sireId')"
            />
          </template>
          <v-textarea
            v-model="draft.note"
            label="Private note, never published"
            class="wide"
            rows="3"
            :error-messages="errorsOf('note')"
          />
          <v-alert
            v-if="write.general(['name', 'status', 'hatchedOn', 'damId', 'sireId', 'note'])"
            type="error"
            variant="tonal"
            :icon="false"
            class="wide"
            role="alert"
            >{{ write.message.value }}</v-alert
          >
          <v-alert
            v-if="removal.message.value"
            type="error"
            variant="tonal"
            :icon="false"
            class="wide"
            role="alert"
            >{{ removal.message.value }}</v-alert
          >
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="(discard(), emit('close'))">Discard</v-btn>
        <v-btn color="error" :loading="removal.busy.value" @click="remove">Delete: entered by mistake</v-btn>
        <v-spacer />
        <v-btn type="submit" form="edit-form" color="primary" variant="flat" :loading="write.busy.value"
          >Save</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
