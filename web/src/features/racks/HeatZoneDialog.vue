<script setup lang="ts">
import { heatZoneInput, type HeatZoneView, type RackSummary } from '@karyotome/contract';
import { USUAL_HEAT } from '@karyotome/core';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords, temperatureWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import DeleteDialog from '../../ui/DeleteDialog.vue';
import FormDialog from '../../ui/FormDialog.vue';
import TemperatureField from '../../ui/TemperatureField.vue';

/** The heat zones of a rack: what each should be, and what heats it. */
const props = defineProps<{ rack: RackSummary; zone: HeatZoneView | null }>();
const emit = defineEmits<{ choose: [HeatZoneView | null]; close: [] }>();
const notices = useNotices();
const { rack, zone } = props;
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `zone.${rack.id}.${zone?.id ?? 'new'}.${zone?.version ?? 0}`,
  initial: () => ({
    rackId: rack.id,
    name: zone?.name ?? (rack.zones.length === 0 ? 'All levels' : ''),
    warmC: zone?.warmC ?? USUAL_HEAT.warmC,
    coolC: zone?.coolC ?? USUAL_HEAT.coolC,
    thermostat: zone?.thermostat ?? true,
    everyDays: zone?.everyDays ?? USUAL_HEAT.everyDays,
  }),
  schema: heatZoneInput,
  toInput: (values) => values,
  send: (input) =>
    zone === null ? api.addHeatZone(input) : api.changeHeatZone(zone.id, input, zone.version),
});
const session = useSession();
const isDeleting = ref(false);
async function send(): Promise<void> {
  const { name } = draft;
  if (!(await submit())) return;
  notices.say(`${name} saved`);
  emit('close');
}
function leave(): void {
  discard();
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Heat zone"
    :subtitle="rack.name"
    submit-text="Save zone"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <div v-if="rack.zones.length > 0" class="row wide">
      <v-btn
        v-for="one in rack.zones"
        :key="one.id"
        size="small"
        :variant="one.id === zone?.id ? 'flat' : 'outlined'"
        @click="emit('choose', one)"
        >{{ one.name }}</v-btn
      >
      <v-btn size="small" :variant="zone === null ? 'flat' : 'outlined'" @click="emit('choose', null)"
        >Another…</v-btn
      >
    </div>
    <v-text-field
      v-model="draft.name"
      label="Name, such as a level"
      class="wide"
      :error-messages="errorsOf('name')"
    />
    <TemperatureField v-model="draft.warmC" label="Warm side" :error-messages="errorsOf('warmC')" />
    <TemperatureField v-model="draft.coolC" label="Cool side" :error-messages="errorsOf('coolC')" />
    <v-number-input
      v-model="draft.everyDays"
      label="Checked every … days"
      control-variant="hidden"
      :error-messages="errorsOf('everyDays')"
    />
    <v-checkbox v-model="draft.thermostat" label="On a thermostat" hide-details density="compact" />
    <p v-if="!draft.thermostat" class="wide warn">
      A heat mat without a thermostat burns and kills. Today will remind you until it has one.
    </p>
    <p v-if="zone?.lastCheck" class="wide small soft">
      Last checked {{ dayWords(zone.lastCheck.on) }} by {{ zone.lastCheck.author }}:
      {{ temperatureWords(zone.lastCheck.warmC) }} and {{ temperatureWords(zone.lastCheck.coolC) }}.
    </p>
    <template #actions>
      <v-btn v-if="zone && session.mayDestroy" color="error" @click="isDeleting = true">Delete</v-btn>
    </template>
    <template #after>
      <DeleteDialog
        v-if="zone && isDeleting"
        :name="zone.name"
        text="The heat zone goes with its checks."
        :send="(reason) => api.deleteHeatZone(zone!.id, reason)"
        @close="isDeleting = false"
        @deleted="leave"
      />
    </template>
  </FormDialog>
</template>

<style scoped>
.warn {
  color: rgb(var(--v-theme-error));
}
</style>
