<script setup lang="ts">
import { ref } from 'vue';
import { useSession } from '../../stores/session.ts';
import { zoneNames } from '../settings/zones.ts';

/** Which clock a logger's file was written by: without that its hours cannot be placed. */
defineProps<{ fileName: string }>();
const emit = defineEmits<{ close: []; chosen: [timeZone: string] }>();
const session = useSession();
const zone = ref(session.settings?.farmZone ?? 'UTC');
const zones = zoneNames(session.settings?.farmZone);
</script>

<template>
  <v-dialog
    :model-value="true"
    max-width="480"
    aria-labelledby="logger-zone"
    @update:model-value="emit('close')"
  >
    <v-card class="box">
      <h2 id="logger-zone">Which zone is the logger's clock in?</h2>
      <p class="small soft">
        {{ fileName }}. Times in the file that carry their own offset are read by that. When clocks go back,
        both hours are kept.
      </p>
      <v-autocomplete v-model="zone" :items="zones" label="Time zone of the logger" />
      <div class="row">
        <v-btn variant="text" @click="emit('close')">Cancel</v-btn>
        <v-spacer />
        <v-btn color="primary" :disabled="!zone" @click="emit('chosen', zone)">Read the file</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.box {
  display: grid;
  gap: 16px;
  padding: 20px;
}
</style>
