<script setup lang="ts">
import type { PairingView } from '@karyotome/contract';
import { mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { useSession } from '../../stores/session.ts';
import { usePairings } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';
import ClutchDialog from './ClutchDialog.vue';
import PairingCard from './PairingCard.vue';
import PairingDialog from './PairingDialog.vue';

const { data, status, error, refetch } = usePairings();
const session = useSession();
const adding = ref(false);
const laying = ref<PairingView | null>(null);
const seasons = computed(() => {
  const groups = new Map<number, PairingView[]>();
  for (const pairing of data.value ?? [])
    groups.set(pairing.season, [...(groups.get(pairing.season) ?? []), pairing]);
  return [...groups];
});
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Season</h1>
      <v-btn v-if="session.mayRecord" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
        >New pairing</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No pairing yet"
      empty-text="A pairing is one female with one or more males over a season. Its eggs become a clutch."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" @click="adding = true">New pairing</v-btn></template>
      <section v-for="[season, pairings] in seasons" :key="season" class="season">
        <h2>
          {{ season }} <span class="soft small">{{ pairings.length }} pairings</span>
        </h2>
        <div class="grid">
          <PairingCard
            v-for="pairing in pairings"
            :key="pairing.id"
            :pairing="pairing"
            :may-record="session.mayRecord"
            @lay="laying = pairing"
          />
        </div>
      </section>
    </StateBlock>
    <PairingDialog v-if="adding" @close="adding = false" />
    <ClutchDialog v-if="laying" :pairing="laying" @close="laying = null" />
  </div>
</template>

<style scoped>
.season {
  margin-bottom: 24px;
}
.season h2 {
  margin-bottom: 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(370px, 100%), 1fr));
  gap: 14px;
}
</style>
