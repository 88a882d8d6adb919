<script setup lang="ts">
import type { HeatZoneView, RackSummary, RackView } from '@karyotome/contract';
import {
  mdiAlertCircleOutline,
  mdiArrowUpBold,
  mdiArrowULeftTop,
  mdiBroom,
  mdiWaterOutline,
  mdiPause,
  mdiPlus,
} from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../../api/resources.ts';
import { countWords, numberWords } from '../../format/format.ts';
import { useRacks } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import DeleteDialog from '../../ui/DeleteDialog.vue';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import EditRackDialog from './EditRackDialog.vue';
import HeatZoneDialog from './HeatZoneDialog.vue';
import RackDialog from './RackDialog.vue';
import RacksOfRoomDialog from './RacksOfRoomDialog.vue';
import RackFront from './RackFront.vue';
import RackTile from './RackTile.vue';
import RacksNav from './RacksNav.vue';
import SurfaceCheckDialog from './SurfaceCheckDialog.vue';
import WalkingOrderDialog from './WalkingOrderDialog.vue';
import { useMoving } from './useMoving.ts';

const { data, status, error, refetch } = useRacks();
const session = useSession();
const adding = ref(false);
const building = ref(useRoute().query['build'] === '1');
const ordering = ref(false);
const editing = ref<RackSummary | null>(null);
const zone = ref<{ rack: RackSummary; zone: HeatZoneView | null } | null>(null);
const checking = ref<{ id: string; name: string; rack: string } | null>(null);
/** The racks that came into sight, as they were read last. */
const loaded = ref(new Map<string, RackView>());
const { held, inHand, take, letGo, put, takeOut } = useMoving(computed(() => [...loaded.value.values()]));
const SHOWN = [
  { value: 'all', title: 'All' },
  { value: 'free', title: 'Free tubs' },
  { value: 'advised', title: 'Moves advised' },
  { value: 'clean', title: 'Cleaning due' },
] as const;
const show = ref<(typeof SHOWN)[number]['value']>('all');
function onKey(event: KeyboardEvent): void {
  // A dialog or menu takes the key for itself; a notice at the bottom does not.
  const isTaken = document.querySelector('.v-dialog.v-overlay--active, .v-menu.v-overlay--active') !== null;
  if (event.key === 'Escape' && !isTaken) letGo();
}
useEventListener('keydown', onKey);
const deleting = ref<RackSummary | null>(null);
const rooms = computed(() => {
  const groups = new Map<string, RackSummary[]>();
  for (const rack of data.value ?? []) groups.set(rack.room, [...(groups.get(rack.room) ?? []), rack]);
  return [...groups];
});
const places = (racks: readonly RackSummary[]): string => {
  const tubs = racks.reduce((sum, { levels, tubsPerLevel }) => sum + levels * tubsPerLevel, 0);
  const free = racks.reduce((sum, rack) => sum + rack.free, 0);
  return `${numberWords(tubs - free)} of ${countWords(tubs, 'tub', 'tubs')} taken`;
};
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Racks</h1>
      <RacksNav />
      <TableLink v-if="data?.length" list="tubs" />
      <v-btn v-if="session.mayHouse" variant="outlined" @click="building = true">Racks of a room…</v-btn>
      <v-btn v-if="session.mayHouse" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
        >New rack</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No rack yet"
      empty-text="A rack is levels of tubs of one kind. Its kind is a step of an enclosure ladder, and the ladder says when an animal should move."
      @retry="refetch()"
    >
      <template v-if="session.mayHouse" #first>
        <v-btn color="primary" @click="building = true">Racks of a room…</v-btn>
        <v-btn @click="adding = true">New rack</v-btn>
      </template>
      <div class="row">
        <v-btn-toggle v-model="show" density="compact" aria-label="Which tubs to show">
          <v-btn v-for="one in SHOWN" :key="one.value" :value="one.value">{{ one.title }}</v-btn>
        </v-btn-toggle>
        <v-btn v-if="session.mayHouse && (data?.length ?? 0) > 1" variant="outlined" @click="ordering = true"
          >Walking order…</v-btn
        >
        <span v-if="session.mayHouse" class="small soft"
          >Drag an animal to a tub, or take up one or several by their rings and put them down.</span
        >
      </div>
      <div v-if="inHand.length > 0" class="in-hand" role="status">
        <span
          ><strong>In the hand:</strong> {{ inHand.map(({ number }) => number).join(', ') }}. Now choose a
          tub.</span
        >
        <v-btn size="small" variant="text" @click="takeOut(held)">Out of its tub</v-btn>
        <v-btn size="small" variant="tonal" @click="letGo">Let go</v-btn>
      </div>
      <p class="legend small soft">
        <span><v-icon :icon="mdiArrowUpBold" size="16" /> advised to move up</span>
        <span><v-icon :icon="mdiPause" size="16" /> heavy enough, but leave it for now</span>
        <span><v-icon :icon="mdiArrowULeftTop" size="16" /> back to the last tub</span>
        <span><v-icon :icon="mdiWaterOutline" size="16" /> in shed</span>
        <span><v-icon :icon="mdiBroom" size="16" /> cleaning due</span>
        <span><v-icon :icon="mdiAlertCircleOutline" size="16" /> a second look</span>
        <span><strong>bold weight</strong> outside its tub’s range</span>
      </p>
      <section v-for="[room, racks] in rooms" :key="room" class="room">
        <h2>
          {{ room }} <span class="soft small">{{ places(racks) }}</span>
        </h2>
        <div class="grid">
          <RackTile
            v-for="rack in racks"
            :key="rack.id"
            v-slot="{ rack: whole }"
            :rack="rack"
            @loaded="loaded.set($event.id, $event)"
          >
            <RackFront
              :rack="whole"
              :may-house="session.mayHouse"
              :held="held"
              :show="show"
              @delete="deleting = rack"
              @edit="editing = rack"
              @zone="zone = { rack, zone: $event }"
              @check="checking = { id: $event.id, name: $event.name, rack: rack.name }"
              @take="take"
              @put="(ids, tub) => put(ids, tub, whole)"
            />
          </RackTile>
        </div>
      </section>
    </StateBlock>
    <WalkingOrderDialog v-if="ordering" :racks="data ?? []" @close="ordering = false" />
    <RacksOfRoomDialog v-if="building" @close="building = false" />
    <RackDialog v-if="adding" @close="adding = false" />
    <DeleteDialog
      v-if="deleting"
      :name="deleting.name"
      text="The rack goes with its tubs, its heat zones and their checks."
      :send="(reason) => api.deleteRack(deleting!.id, reason)"
      @close="deleting = null"
      @deleted="deleting = null"
    />
    <EditRackDialog v-if="editing" :rack="editing" @close="editing = null" />
    <HeatZoneDialog
      v-if="zone"
      :key="zone.zone?.id ?? 'new'"
      v-bind="zone"
      @choose="zone = { ...zone, zone: $event }"
      @close="zone = null"
    />
    <SurfaceCheckDialog v-if="checking" :zone="checking" @close="checking = null" />
  </div>
</template>

<style scoped>
.in-hand {
  position: sticky;
  top: 64px;
  z-index: 2;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin: 10px 0;
  padding: 8px 14px;
  border-radius: 10px;
  background: rgb(var(--v-theme-surface-light));
}
.room {
  margin-bottom: 24px;
}
.room h2 {
  margin-bottom: 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(480px, 100%), 1fr));
  gap: 16px;
  align-items: start;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 10px 0 12px;
}
</style>
