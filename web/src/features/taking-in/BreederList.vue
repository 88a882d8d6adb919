<script setup lang="ts">
import type { BreederView, Trust } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useBreeders } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { TRUST_ITEMS } from './trust-items.ts';

/** Other breeders, and how far the word of each counts. */
const { data } = useBreeders();
const session = useSession();
const notices = useNotices();
const changing = useWrite((breeder: BreederView, trust: Trust) =>
  api.changeBreeder(breeder.id, { trust }, breeder.version),
);
async function change(breeder: BreederView, trust: Trust): Promise<void> {
  if (await changing.run(breeder, trust)) notices.say('Used from now on');
  else notices.warn(changing.message.value ?? 'It could not be changed');
}
</script>

<template>
  <v-card v-if="data?.length" class="box">
    <h2>How far their word counts</h2>
    <div v-for="breeder in data" :key="breeder.id" class="line">
      <div>
        <strong>{{ breeder.name }}</strong>
        <p class="small soft key">{{ breeder.did }}</p>
      </div>
      <v-select
        :model-value="breeder.trust"
        :items="TRUST_ITEMS"
        :label="`The word of ${breeder.name}`"
        :disabled="!session.mayBreed"
        @update:model-value="change(breeder, $event)"
      />
    </div>
  </v-card>
</template>

<style scoped>
.box {
  display: grid;
  gap: 12px;
  padding: 18px;
}
.line {
  display: grid;
  grid-template-columns: 1fr minmax(200px, 260px);
  gap: 12px;
  align-items: center;
}
.key {
  overflow-wrap: anywhere;
}
@media (width < 600px) {
  .line {
    grid-template-columns: 1fr;
  }
}
</style>
