<script setup lang="ts">
import { newAnimal, STATUSES, validate, type AnimalSummary, type FieldProblem } from '@karyotome/contract';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { statusWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import DayField from '../../ui/DayField.vue';
import GenesField from '../../ui/GenesField.vue';

/** An animal that was not hatched here: its genes are a statement, as it came in. */
defineProps<{ animals: readonly AnimalSummary[] }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const session = useSession();
const notices = useNotices();
const { draft, discard } = useDraft('animal', () => ({
  number: '',
  name: '',
  sex: 'female' as 'female' | 'male' | 'unknown',
  genes: '' as string | null,
  sure: 'certain',
  identifiedBy: session.name,
  hatchedOn: null as string | null,
  massG: null as number | null,
  damId: null as string | null,
  sireId: null as string | null,
  status: 'breeder',
}));
const local = ref<readonly FieldProblem[]>([]);
const write = useWrite(api.addAnimal);
const FIELDS = [
  'number',
  'name',
  'sex',
  'genes',
  'sure',
  'identifiedBy',
  'hatchedOn',
  'massG',
  'damId',
  'sireId',
  'status',
];
const errorsOf = (field: string): string[] => [
  ...local.value.filter((p) => p.field === field).map((p) => p.message),
  ...write.errorsOf(field),
];
async function submit(another: boolean): Promise<void> {
  const result = validate(newAnimal, { ...draft });
  local.value = result.ok ? [] : result.problems;
  if (!result.ok) return;
  const sent = await write.run(result.value);
  if (!sent) return;
  notices.say(`${draft.number} added`, async () => void (await removal.run(sent.value.id)));
  discard();
  if (another) return;
  emit('close');
  await router.push(`/animals/${sent.value.id}`);
}
const removal = useWrite(async (id: string) => {
  await api.deleteAnimal(id);
  await router.push('/animals');
});
</script>

<template>
  <v-dialog :model-value="true" max-width="700" @update:model-value="emit('close')">
    <v-card title="Add an animal">
      <v-card-text>
        <form id="animal-form" class="fields" novalidate @submit.prevent="submit(false)">
          <v-text-field
            v-model="draft.number"
            label="Number"
            autofocus
            :error-messages="errorsOf('number')"
          />
          <v-text-field v-model="draft.name" label="Name, if any" :error-messages="errorsOf('name')" />
          <v-btn-toggle v-model="draft.sex" class="wide" aria-label="Sex">
            <v-btn value="female">♀ Female</v-btn>
            <v-btn value="male">♂ Male</v-btn>
            <v-btn value="unknown">Not sexed</v-btn>
          </v-btn-toggle>
          <GenesField v-model="draft.genes" :errors="errorsOf('genes')" />
          <v-select
            v-model="draft.sure"
            label="How sure"
            :items="['certain', 'probable', 'possible']"
            :error-messages="errorsOf('sure')"
          />
          <v-text-field
            v-model="draft.identifiedBy"
            label="Stated by"
            :error-messages="errorsOf('identifiedBy')"
          />
          <DayField v-model="draft.hatchedOn" label="Hatched on" :errors="errorsOf('hatchedOn')" />
          <v-number-input
            v-model="draft.massG"
            label="Weight today, g"
            :precision="1"
            control-variant="hidden"
            :error-messages="errorsOf('massG')"
          />
          <AnimalPicker
            v-model="draft.damId"
            label="Dam, if recorded here"
            :animals="animals"
            sex="female"
            clearable
            :errors="errorsOf('damId')"
          />
          <AnimalPicker
            v-model="draft.sireId"
            label="Sire, if recorded here"
            :animals="animals"
            sex="male"
            clearable
            :errors="errorsOf('sireId')"
          />
          <v-select
            v-model="draft.status"
            label="Status"
            :items="STATUSES.map((value) => ({ value, title: statusWords(value) }))"
            :error-messages="errorsOf('status')"
          />
          <v-alert
            v-if="write.general(FIELDS)"
            type="error"
            variant="tonal"
            :icon="false"
            class="wide"
            role="alert"
            >{{ write.general(FIELDS) }}</v-alert
          >
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="(discard(), emit('close'))">Discard</v-btn>
        <v-spacer />
        <v-btn :loading="write.busy.value" @click="submit(true)">Add and next</v-btn>
        <v-btn type="submit" form="animal-form" color="primary" variant="flat" :loading="write.busy.value"
          >Add</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
