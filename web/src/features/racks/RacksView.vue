<script setup lang="ts">
import type { RackView } from '@karyotome/contract';
import { mdiArrowUpBold, mdiArrowULeftTop, mdiCircleOutline, mdiPause, mdiPlus, mdiStairs } from '@mdi/js';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useRacks } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import StateBlock from '../../ui/StateBlock.vue';
import RackDialog from './RackDialog.vue';
import RackFront from './RackFront.vue';

const { data, status, error, refetch } = useRacks();
const session = useSession();
const notices = useNotices();
const adding = ref(false);
const removal = useWrite(api.deleteRack);
const rooms = computed(() => {
  const groups = new Map<string, RackView[]>();
  for (const rack of data.value ?? []) groups.set(rack.room, [...(groups.get(rack.room) ?? []), rack]);
  return [...groups];
});
const places = (racks: readonly RackView[]): string => {
  const tubs = racks.flatMap((rack) => rack.tubs);
  return `${tubs.filter((tub) => tub.animals.length > 0).length} of ${tubs.length} tubs taken`;
};
async function remove(rack: RackView): Promise<void> {
  if (await removal.run(rack.id)) notices.say(`${rack.name} removed`);
  else notices.warn(removal.message.value ?? 'It could not be removed');
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Racks</h1>
      <v-btn variant="outlined" :prepend-icon="mdiStairs" to="/racks/ladders">Ladders</v-btn>
      <v-btn v-if="session.mayRecord" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
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
      <template #first><v-btn color="primary" @click="adding = true">New rack</v-btn></template>
      <p class="legend small soft">
        <span><v-icon :icon="mdiArrowUpBold" size="16" /> advised to move up</span>
        <span><v-icon :icon="mdiPause" size="16" /> heavy enough, but leave it for now</span>
        <span><v-icon :icon="mdiArrowULeftTop" size="16" /> back to the last tub</span>
        <span><v-icon :icon="mdiCircleOutline" size="16" /> in shed</span>
      </p>
      <section v-for="[room, racks] in rooms" :key="room" class="room">
        <h2>
          {{ room }} <span class="soft small">{{ places(racks) }}</span>
        </h2>
        <div class="grid">
          <RackFront
            v-for="rack in racks"
            :key="rack.id"
            :rack="rack"
            :may-record="session.mayRecord"
            @remove="remove(rack)"
          />
        </div>
      </section>
    </StateBlock>
    <RackDialog v-if="adding" @close="adding = false" />
  </div>
</template>

<style scoped>
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
  margin-bottom: 12px;
}
</style>
