<script setup lang="ts">
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { useRacks, useRooms } from '../../stores/queries.ts';
import RacksNav from '../racks/RacksNav.vue';
import ClimatePlaces from './ClimatePlaces.vue';
import RoomDialog from './RoomDialog.vue';

const { data, status, error, refetch } = useRooms();
const { data: racks } = useRacks();
/** Rooms that racks stand in and nobody watches yet. */
const names = computed(() => {
  const watched = new Set((data.value ?? []).map(({ name }) => name));
  return [...new Set((racks.value ?? []).map(({ room }) => room))].filter((name) => !watched.has(name));
});
</script>

<template>
  <ClimatePlaces
    title="Climate"
    list="rooms"
    add-text="Watch a room"
    empty-title="No room is watched yet"
    empty-text="A room has limits of temperature and humidity. Readings come by hand, from a logger's file, from a program with a token, or, for trying out, from a simulated sensor; out of range or silent, the room stands on Today."
    notes="The air of the room is not the warm end of a tub: check surfaces with the heat zones of each rack. An alarm here does not ring: it stands on Today."
    :places="data"
    :status="status"
    :error="error"
    :add-reading="api.addRoomReading"
    :import-readings="api.importRoomReadings"
    @retry="refetch()"
  >
    <template #nav><RacksNav /></template>
    <template #dialog="{ place, close }"><RoomDialog :room="place" :names="names" @close="close" /></template>
  </ClimatePlaces>
</template>
