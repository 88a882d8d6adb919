<script setup lang="ts">
import { computed } from 'vue';
import { dayWords } from '../../format/format.ts';
import { usePairings } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';

const { data, status, error, refetch } = usePairings();
const clutches = computed(() =>
  (data.value ?? [])
    .flatMap((pairing) => pairing.clutches.map((clutch) => ({ ...clutch, pairing })))
    .toSorted((a, b) => (a.laidOn < b.laidOn ? 1 : -1)),
);
const waiting = computed(() => clutches.value.filter((c) => c.hatchedOn && c.identified < (c.hatched ?? 0)));
const others = computed(() => clutches.value.filter((c) => !waiting.value.includes(c)));
const parents = (c: (typeof clutches.value)[number]): string =>
  `${c.pairing.dam.number} × ${c.pairing.sires.map((sire) => sire.number).join(' or ')}`;
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Bench</h1>
      <v-btn variant="outlined" to="/bench/calls">How calls proved</v-btn>
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="clutches.length === 0"
      empty-title="No clutch yet"
      empty-text="Record a pairing and its eggs under Season. What hatches is identified here."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/season">To Season</v-btn></template>
      <template
        v-for="group in [
          { title: 'Waiting to be identified', list: waiting },
          { title: 'All other clutches', list: others },
        ]"
        :key="group.title"
      >
        <section v-if="group.list.length > 0" class="group">
          <h2>{{ group.title }}</h2>
          <v-card>
            <router-link
              v-for="clutch in group.list"
              :key="clutch.id"
              :to="clutch.hatchedOn ? `/bench/${clutch.id}` : `/season/clutches/${clutch.id}`"
              class="line"
            >
              <strong>{{ clutch.name }}</strong>
              <span>{{ parents(clutch) }}</span>
              <span class="soft small genes"
                >{{ clutch.pairing.dam.label }} ×
                {{ clutch.pairing.sires.map((s) => s.label).join(' or ') }}</span
              >
              <span class="num">{{
                clutch.hatchedOn
                  ? `${clutch.identified} of ${clutch.hatched} identified`
                  : `${clutch.eggs} eggs, day ${clutch.day}`
              }}</span>
              <span class="num soft">{{
                clutch.hatchedOn ? `hatched ${dayWords(clutch.hatchedOn)}` : `laid ${dayWords(clutch.laidOn)}`
              }}</span>
            </router-link>
          </v-card>
        </section>
      </template>
    </StateBlock>
  </div>
</template>

<style scoped>
.group {
  margin-bottom: 24px;
}
.group h2 {
  margin-bottom: 8px;
}
.line {
  display: grid;
  grid-template-columns: 60px 170px 1fr 150px 170px;
  gap: 4px 16px;
  align-items: center;
  min-height: 48px;
  padding: 8px 16px;
  color: inherit;
  text-decoration: none;
}
.line + .line {
  border-top: 1px solid var(--hair);
}
.line:hover {
  background: rgb(var(--v-theme-surface-light));
}
@media (width < 900px) {
  .line {
    grid-template-columns: 60px 1fr;
  }
  .genes {
    grid-column: 1 / -1;
  }
  .num {
    text-align: left;
  }
}
</style>
