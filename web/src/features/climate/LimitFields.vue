<script setup lang="ts">
import TemperatureField from '../../ui/TemperatureField.vue';
import type { LimitsDraft } from './limits-draft.ts';

/** When a place raises an alarm, and what measures it. */
defineProps<{ errorsOf: (field: string) => string[] }>();
const draft = defineModel<LimitsDraft>({ required: true });
const SENSORS = [
  { value: 'none', title: 'None: readings by hand, from a file or from a program' },
  { value: 'simulated', title: 'Simulated, steady (for trying out)' },
  { value: 'simulated-failing', title: 'Simulated, the heater fails (for trying out)' },
];
</script>

<template>
  <TemperatureField v-model="draft.lowC" label="Alarm below" :error-messages="errorsOf('lowC')" />
  <TemperatureField v-model="draft.highC" label="Alarm above" :error-messages="errorsOf('highC')" />
  <v-number-input
    v-model="draft.lowHumidity"
    label="Alarm below, % humidity"
    control-variant="hidden"
    clearable
    :precision="0"
    :error-messages="errorsOf('lowHumidity')"
  />
  <v-number-input
    v-model="draft.silentAfterHours"
    label="Alarm when silent for, hours"
    control-variant="hidden"
    clearable
    :precision="1"
    :error-messages="errorsOf('silentAfterHours')"
  />
  <v-select
    v-model="draft.sensor"
    class="wide"
    label="Sensor"
    :items="SENSORS"
    :error-messages="errorsOf('sensor')"
  />
  <p v-if="draft.sensor !== 'none'" class="wide small">
    The simulated sensor measures nothing. It writes invented readings, labelled as such, so that charts and
    alarms can be tried out. Do not trust eggs or animals to it.
  </p>
</template>
