<script setup lang="ts">
import { newRack, validate, type FieldProblem } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useLadders } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';

const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notices = useNotices();
const { data: ladders } = useLadders();
const { draft, discard } = useDraft('rack', () => ({
  room: 'Snake room',
  name: '',
  levels: 6 as number | null,
  tubsPerLevel: 4 as number | null,
  ladderId: session.settings?.ladderId ?? null,
  stepPosition: 0,
}));
const steps = computed(() =>
  (ladders.value?.find((ladder) => ladder.id === draft.ladderId)?.steps ?? []).map((step, value) => ({
    value,
    title: `${step.name}, ${step.maxG === null ? `from ${step.minG} g` : `${step.minG} to ${step.maxG} g`}`,
  })),
);
const local = ref<readonly FieldProblem[]>([]);
const write = useWrite(api.addRack);
const FIELDS = ['room', 'name', 'levels', 'tubsPerLevel', 'ladderId', 'stepPosition'];
const errorsOf = (field: string): string[] => [
  ...local.value.filter((p) => p.field === field).map((p) => p.message),
  ...write.errorsOf(field),
];
async function submit(): Promise<void> {
  const result = validate(newRack, {
    ...draft,
    levels: draft.levels ?? undefined,
    tubsPerLevel: draft.tubsPerLevel ?? undefined,
    ladderId: draft.ladderId ?? undefined,
  });
  local.value = result.ok ? [] : result.problems;
  if (!result.ok || !(await write.run(result.value))) return;
  notices.say(`${draft.name} added`);
  discard();
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="true" @update:model-value="emit('close')">
    <v-card title="New rack">
      <v-card-text>
        <form id="rack-form" class="fields" novalidate @submit.prevent="submit">
          <v-text-field v-model="draft.room" label="Room" :error-messages="errorsOf('room')" />
          <v-text-field
            v-model="draft.name"
            label="Name of the rack"
            autofocus
            :error-messages="errorsOf('name')"
          />
          <v-number-input
            v-model="draft.levels"
            label="Levels"
            control-variant="hidden"
            :min="0"
            :error-messages="errorsOf('levels')"
          />
          <v-number-input
            v-model="draft.tubsPerLevel"
            label="Tubs on a level"
            control-variant="hidden"
            :min="0"
            :error-messages="errorsOf('tubsPerLevel')"
          />
          <v-select
            v-model="draft.ladderId"
            label="Ladder"
            :items="(ladders ?? []).map((l) => ({ value: l.id, title: l.name }))"
            :error-messages="errorsOf('ladderId')"
          />
          <v-select
            v-model="draft.stepPosition"
            label="Kind of tub"
            :items="steps"
            :error-messages="errorsOf('stepPosition')"
          />
          <p class="wide small soft">
            Every heat mat on a thermostat with its probe fixed down: a probe that hangs in the air lets the
            mat run hot, and a mat without one burns and kills. Tape or hold down lids that only clip.
          </p>
          <v-alert
            v-if="write.general(FIELDS)"
            type="error"
            variant="tonal"
            :icon="false"
            class="wide"
            role="alert"
            >{{ write.message.value }}</v-alert
          >
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="(discard(), emit('close'))">Discard</v-btn>
        <v-spacer />
        <v-btn type="submit" form="rack-form" color="primary" variant="flat" :loading="write.busy.value"
          >Add rack</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
