<script setup lang="ts">
import { useRoute } from 'vue-router';
import { usePlanner } from '../../stores/queries.ts';
import OwnGenesField from '../../ui/OwnGenesField.vue';
import StateBlock from '../../ui/StateBlock.vue';
import { usePlannerWorker } from '../../workers/usePlanner.ts';
import SeasonNav from '../season/SeasonNav.vue';
import MatesTab from './MatesTab.vue';
import PairTab from './PairTab.vue';
import RoutesTab from './RoutesTab.vue';
import SeasonTab from './SeasonTab.vue';
import { usePlannerDraft } from './planner-draft.ts';

const { data, status, error, refetch } = usePlanner();
const planner = usePlannerWorker(data);
const { draft } = usePlannerDraft();
/** What a page asks for that leads here. */
const { query } = useRoute();
if (query['tab'] === 'routes') draft.tab = 'routes';
if (typeof query['target'] === 'string') draft.target = query['target'];
const TABS = [
  { value: 'pair', title: 'One pair' },
  { value: 'mates', title: 'Best mates' },
  { value: 'routes', title: 'Project routes' },
  { value: 'season', title: 'Season plan' },
] as const;
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1 class="title">Planner</h1>
      <SeasonNav />
    </div>
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <div v-if="data" class="stack">
        <div class="top">
          <v-btn-toggle v-model="draft.tab" aria-label="What to plan" class="tabs">
            <v-btn v-for="tab in TABS" :key="tab.value" :value="tab.value">{{ tab.title }}</v-btn>
          </v-btn-toggle>
          <OwnGenesField
            v-if="draft.tab !== 'season'"
            v-model="draft.target"
            label="What do you want? The target, in your shorthand"
            hint="For example: Clown Pastel. One that shows at least this."
          />
        </div>
        <PairTab
          v-if="draft.tab === 'pair'"
          :draft="draft"
          :view="data"
          :animals="data.animals"
          :planner="planner"
        />
        <MatesTab v-else-if="draft.tab === 'mates'" :draft="draft" :view="data" :planner="planner" />
        <RoutesTab v-else-if="draft.tab === 'routes'" :draft="draft" :view="data" :planner="planner" />
        <SeasonTab v-else :draft="draft" :view="data" :planner="planner" />
        <p v-if="data.leftOut > 0" class="small soft">
          {{ data.leftOut }} animals that are not grown yet are left out here: there are too many to plan with
          all.
        </p>
      </div>
    </StateBlock>
  </div>
</template>

<style scoped>
.place-head .title {
  margin-right: 8px;
}
.top {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  align-items: start;
  gap: 12px 16px;
}
.tabs {
  overflow-x: auto;
}
@media (width < 900px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
