<script setup lang="ts">
import type { IncubatorView } from '@karyotome/contract';
import { mdiPlus } from '@mdi/js';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useIncubators } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import SeasonNav from '../season/SeasonNav.vue';
import ClimateCard from './ClimateCard.vue';
import IncubatorDialog from './IncubatorDialog.vue';
import LoggerFileState from './LoggerFileState.vue';
import ReadingDialog from './ReadingDialog.vue';
import { useLoggerFile } from './useLoggerFile.ts';

const { data, status, error, refetch } = useIncubators();
const session = useSession();
const adding = ref(false);
const changing = ref<IncubatorView | null>(null);
const reading = ref<IncubatorView | null>(null);
const loggerFile = useLoggerFile(api.importReadings);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1 class="title">Incubators</h1>
      <SeasonNav />
      <v-btn v-if="session.mayHouse" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
        >New incubator</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No incubator yet"
      empty-text="An incubator has a setting and limits. Readings come by hand, from a logger's file, from a program with a token, or, for trying out, from a simulated sensor; out of range or silent, it stands on Today."
      @retry="refetch()"
    >
      <template v-if="session.mayHouse" #first
        ><v-btn color="primary" @click="adding = true">New incubator</v-btn></template
      >
      <LoggerFileState :file="loggerFile" />
      <div class="grid">
        <ClimateCard
          v-for="incubator in data ?? []"
          :key="incubator.id"
          :place="incubator"
          :busy="loggerFile.busy.value"
          @reading="reading = incubator"
          @change="changing = incubator"
          @file="loggerFile.take(incubator.id, $event)"
        >
          <div class="row">
            <span v-if="incubator.clutches.length === 0" class="small soft">Empty</span>
            <v-btn
              v-for="clutch in incubator.clutches"
              :key="clutch.id"
              size="small"
              variant="outlined"
              :to="`/season/clutches/${clutch.id}`"
              >{{ clutch.name }}, day {{ clutch.day }}</v-btn
            >
          </div>
        </ClimateCard>
      </div>
      <p class="small soft notes">
        A logger's file is CSV with a header: a column for the time, one for the temperature, and if there is
        one, the humidity. The same file again adds nothing twice. An alarm here does not ring: it stands on
        Today. Keep a thermostat with a cut-out of its own on every heater.
      </p>
    </StateBlock>
    <IncubatorDialog v-if="adding" :incubator="null" @close="adding = false" />
    <IncubatorDialog v-if="changing" :incubator="changing" @close="changing = null" />
    <ReadingDialog v-if="reading" :place="reading" :add="api.addReading" @close="reading = null" />
  </div>
</template>

<style scoped>
.place-head .title {
  margin-right: 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(480px, 100%), 1fr));
  gap: 16px;
  align-items: start;
}
.notes {
  max-width: 760px;
  margin-top: 16px;
}
</style>
