<script setup lang="ts">
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { deviceZone } from '../../format/farm-day.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { zoneNames } from './zones.ts';

/** Asks once, at the first start, which time zone the farm is in: the browser's is proposed. */
const session = useSession();
const zone = ref(deviceZone());
const isOther = ref(false);
const zones = zoneNames();
const { run, busy, message } = useWrite(async () => {
  const { id: _id, version, farmZone: _farm, ...settings } = session.settings!;
  await api.changeSettings({ ...settings, timeZone: zone.value }, version);
  await session.refresh();
});
</script>

<template>
  <v-card class="ask">
    <p>
      <strong>Which time zone is the farm in?</strong> Meals, sheds and hatch days are counted by its
      calendar, on every device, wherever that is.
    </p>
    <v-alert v-if="message" type="error" variant="tonal" density="compact" :icon="false" role="alert">{{
      message
    }}</v-alert>
    <div class="row">
      <v-autocomplete
        v-if="isOther"
        v-model="zone"
        :items="zones"
        label="Time zone"
        density="compact"
        hide-details
        class="zone"
      />
      <v-btn color="primary" :loading="busy" @click="run()">It is in {{ zone }}</v-btn>
      <v-btn v-if="!isOther" variant="text" @click="isOther = true">In another one</v-btn>
    </div>
  </v-card>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 12px;
  padding: 16px;
  margin-bottom: 16px;
}
.zone {
  max-width: 320px;
  flex: 1;
}
</style>
