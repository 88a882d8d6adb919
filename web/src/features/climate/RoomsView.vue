<script setup lang="ts">
import type { RoomClimateView } from '@karyotome/contract';
import { mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useRacks, useRooms } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import RacksNav from '../racks/RacksNav.vue';
import ClimateCard from './ClimateCard.vue';
import LoggerFileState from './LoggerFileState.vue';
import ReadingDialog from './ReadingDialog.vue';
import RoomDialog from './RoomDialog.vue';
import { useLoggerFile } from './useLoggerFile.ts';

const { data, status, error, refetch } = useRooms();
const session = useSession();
const adding = ref(false);
const changing = ref<RoomClimateView | null>(null);
const reading = ref<RoomClimateView | null>(null);
const { data: racks } = useRacks();
/** Rooms that racks stand in and nobody watches yet. */
const names = computed(() => {
  const watched = new Set((data.value ?? []).map(({ name }) => name));
  return [...new Set((racks.value ?? []).map(({ room }) => room))].filter((name) => !watched.has(name));
});
const loggerFile = useLoggerFile(api.importRoomReadings);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1 class="title">Climate</h1>
      <RacksNav />
      <v-btn v-if="session.mayHouse" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
        >Watch a room</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No room is watched yet"
      empty-text="A room has limits of temperature and humidity. Readings come by hand, from a logger's file, from a program with a token, or, for trying out, from a simulated sensor; out of range or silent, the room stands on Today."
      @retry="refetch()"
    >
      <template v-if="session.mayHouse" #first
        ><v-btn color="primary" @click="adding = true">Watch a room</v-btn></template
      >
      <LoggerFileState :file="loggerFile" />
      <div class="grid">
        <ClimateCard
          v-for="room in data ?? []"
          :key="room.id"
          :place="room"
          :busy="loggerFile.busy.value"
          @reading="reading = room"
          @change="changing = room"
          @file="loggerFile.take(room.id, $event)"
        />
      </div>
      <p class="small soft notes">
        The air of the room is not the warm end of a tub: check surfaces with the heat zones of each rack. An
        alarm here does not ring: it stands on Today.
      </p>
    </StateBlock>
    <RoomDialog v-if="adding" :room="null" :names="names" @close="adding = false" />
    <RoomDialog v-if="changing" :room="changing" :names="names" @close="changing = null" />
    <ReadingDialog v-if="reading" :place="reading" :add="api.addRoomReading" @close="reading = null" />
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
