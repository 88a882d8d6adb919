<script setup lang="ts">
import { newRacks, type NewRack, type NewRacks } from '@karyotome/contract';
import { computed, watch } from 'vue';
import { api } from '../../api/resources.ts';
import { countWords, massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useLadders, useRacks } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import { racksOfRoom, rowFor, type RackRow } from './racks-of-room.ts';

/** All racks of a room in one form: a ladder, and how many racks of each of its kinds of tub. */
const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notices = useNotices();
const { data: ladders } = useLadders();
const { data: racks } = useRacks();
const { draft, discard, submit, general, busy, errorsOf } = useForm({
  key: 'racks-of-room',
  initial: () => ({
    room: 'Snake room',
    ladderId: session.settings?.ladderId ?? (null as string | null),
    rows: [] as RackRow[],
  }),
  schema: newRacks,
  toInput: (): NewRacks => ({ racks: built.value }),
  send: ({ racks: all }) => api.addRacks(all),
});
const steps = computed(() => ladders.value?.find(({ id }) => id === draft.ladderId)?.steps ?? []);
watch(
  steps,
  (all) => {
    if (draft.rows.length !== all.length) draft.rows = all.map((_, position) => rowFor(position));
  },
  { immediate: true },
);
const built = computed((): NewRack[] => {
  const taken = (racks.value ?? []).filter(({ room }) => room === draft.room).map(({ name }) => name);
  const place = { room: draft.room, ladderId: draft.ladderId ?? '' };
  return draft.rows.length === steps.value.length ? racksOfRoom(place, steps.value, draft.rows, taken) : [];
});
const tubs = computed(() => built.value.reduce((sum, rack) => sum + rack.levels * rack.tubsPerLevel, 0));
const spanOf = ({ minG, maxG }: { minG: number; maxG: number | null }): string =>
  maxG === null ? `from ${massWords(minG)}` : reader().massSpan(minG, maxG);
async function send(): Promise<void> {
  const count = built.value.length;
  if (!(await submit())) return;
  notices.say(`${countWords(count, 'rack', 'racks')} added to ${draft.room}`);
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Racks of a room"
    :submit-text="built.length === 0 ? 'Add racks' : `Add ${countWords(built.length, 'rack', 'racks')}`"
    :max-width="760"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-text-field v-model="draft.room" label="Room" :error-messages="errorsOf('racks.0.room')" />
    <v-select
      v-model="draft.ladderId"
      label="Ladder"
      :items="(ladders ?? []).map((l) => ({ value: l.id, title: l.name }))"
      :error-messages="errorsOf('racks.0.ladderId')"
    />
    <fieldset v-for="(step, i) in steps" :key="step.name" class="wide step">
      <template v-if="draft.rows[i]">
        <legend>
          <strong>{{ step.name }}</strong> <span class="small soft">{{ spanOf(step) }}</span>
        </legend>
        <v-number-input
          v-model="draft.rows[i].count"
          label="Racks"
          :min="0"
          :max="20"
          density="compact"
          hide-details
          control-variant="split"
        />
        <v-number-input
          v-model="draft.rows[i].levels"
          label="Levels"
          :min="1"
          :max="20"
          density="compact"
          hide-details
          control-variant="hidden"
          :disabled="!draft.rows[i].count"
        />
        <v-number-input
          v-model="draft.rows[i].tubsPerLevel"
          label="Tubs on a level"
          :min="1"
          :max="20"
          density="compact"
          hide-details
          control-variant="hidden"
          :disabled="!draft.rows[i].count"
        />
      </template>
    </fieldset>
    <p v-for="error in errorsOf('racks')" :key="error" class="wide error">
      {{ built.length === 0 ? 'Say how many racks of at least one kind there are.' : error }}
    </p>
    <p class="wide small soft">
      {{ countWords(tubs, 'tub', 'tubs') }} in all. Names can be changed later. Every heat mat on a thermostat
      with its probe fixed down; lids that only clip are held down.
    </p>
  </FormDialog>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: minmax(140px, 1fr) minmax(80px, 1fr) minmax(80px, 1fr);
  gap: 8px 12px;
  padding: 0;
  border: 0;
}
.step legend {
  padding: 0 0 4px;
}
.error {
  color: rgb(var(--v-theme-error));
}
@media (width < 600px) {
  .step {
    grid-template-columns: 1fr 1fr;
  }
  .step > :nth-child(2) {
    grid-column: 1 / -1;
  }
}
</style>
