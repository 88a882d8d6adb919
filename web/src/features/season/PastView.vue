<script setup lang="ts">
import type { PairingView } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { usePairings } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import LayingDialog from './LayingDialog.vue';
import HatchRates from './HatchRates.vue';
import PairingCard from './PairingCard.vue';
import SeasonNav from './SeasonNav.vue';

/** The seasons so far: what came of which pair, and how well it hatched. */
const { data, status, error, refetch } = usePairings();
const session = useSession();
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
      <h1 class="title">Past seasons</h1>
      <SeasonNav />
      <TableLink v-if="data?.length" list="pairings" />
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No pairing yet"
      empty-text="A pairing is one female with one or more males over a season. Its eggs become a clutch. It begins on the board."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/season">To the board</v-btn></template>
      <HatchRates />
      <section v-for="[season, pairings] in seasons" :key="season" class="season">
        <h2>
          {{ season }} <span class="soft small">{{ pairings.length }} pairings</span>
        </h2>
        <div class="grid">
          <PairingCard
            v-for="pairing in pairings"
            :key="pairing.id"
            :pairing="pairing"
            :may-breed="session.mayBreed"
            @lay="laying = pairing"
          />
        </div>
      </section>
    </StateBlock>
    <LayingDialog
      v-if="laying"
      :pairing-id="laying.id"
      :pair="`${laying.dam.number} × ${laying.sires.map((sire) => sire.number).join(' or ')}`"
      @close="laying = null"
    />
  </div>
</template>

<style scoped>
.place-head .title {
  margin-right: 8px;
}
.season {
  margin-top: 24px;
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
