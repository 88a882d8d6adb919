<script setup lang="ts">
import { api } from '../../api/resources.ts';
import { useIncubators } from '../../stores/queries.ts';
import SeasonNav from '../season/SeasonNav.vue';
import ClimatePlaces from './ClimatePlaces.vue';
import IncubatorDialog from './IncubatorDialog.vue';

const { data, status, error, refetch } = useIncubators();
</script>

<template>
  <ClimatePlaces
    title="Incubators"
    list="incubators"
    add-text="New incubator"
    empty-title="No incubator yet"
    empty-text="An incubator has a setting and limits. Readings come by hand, from a logger's file, from a program with a token, or, for trying out, from a simulated sensor; out of range or silent, it stands on Today."
    notes="A logger's file is CSV with a header: a column for the time, one for the temperature, and if there is one, the humidity. The same file again adds nothing twice. An alarm here does not ring: it stands on Today. Keep a thermostat with a cut-out of its own on every heater."
    :places="data"
    :status="status"
    :error="error"
    :add-reading="api.addReading"
    :import-readings="api.importReadings"
    @retry="refetch()"
  >
    <template #nav><SeasonNav /></template>
    <template #card="{ place }">
      <div class="row">
        <span v-if="place.clutches.length === 0" class="small soft">Empty</span>
        <v-btn
          v-for="clutch in place.clutches"
          :key="clutch.id"
          size="small"
          variant="outlined"
          :to="`/season/clutches/${clutch.id}`"
          >{{ clutch.name }}, day {{ clutch.day }}</v-btn
        >
      </div>
    </template>
    <template #dialog="{ place, close }"><IncubatorDialog :incubator="place" @close="close" /></template>
  </ClimatePlaces>
</template>
