<script setup lang="ts">
import type { LadderView, NewLadder } from '@karyotome/contract';
import { mdiPlus } from '@mdi/js';
import { ref } from 'vue';
import { useLadders } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import LadderDialog from './LadderDialog.vue';
import TableLink from '../../ui/TableLink.vue';
import RacksNav from './RacksNav.vue';
import { massWords } from '../../format/format.ts';

const { data, status, error, refetch } = useLadders();
const session = useSession();
const editing = ref<{ id: string | null; version: number; ladder: NewLadder } | null>(null);
const EMPTY: NewLadder = { name: '', steps: [{ name: 'Hatchling tub', minG: 0, maxG: 300, inside: '' }] };
function edit(view: LadderView): void {
  editing.value = { id: view.id, version: view.version, ladder: { name: view.name, steps: view.steps } };
}
const grams = (g: number | null): string => (g === null ? 'no end' : massWords(g));
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Ladders</h1>
      <RacksNav />
      <TableLink list="ladders" />
      <v-btn
        v-if="session.mayHouse"
        color="primary"
        :prepend-icon="mdiPlus"
        @click="editing = { id: null, version: 0, ladder: EMPTY }"
        >New ladder</v-btn
      >
    </div>
    <p class="soft intro">
      Enclosures by weight, from the first tub to the last. Weights and sizes are common practice; change them
      to yours. Advice on moving follows at once.
    </p>
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <div class="grid">
        <v-card v-for="ladder in data" :key="ladder.id" class="card">
          <div class="row">
            <h2>{{ ladder.name }}</h2>
            <v-chip v-if="ladder.id === session.settings?.ladderId" size="small" label>in use</v-chip>
            <v-spacer />
            <v-btn
              v-if="session.mayHouse"
              size="small"
              variant="outlined"
              :aria-label="`Edit ${ladder.name}`"
              @click="edit(ladder)"
              >Edit</v-btn
            >
          </div>
          <table>
            <tbody>
              <tr v-for="(step, index) in ladder.steps" :key="index">
                <td>{{ step.name }}</td>
                <td class="num">{{ grams(step.minG) }}</td>
                <td class="num">{{ grams(step.maxG) }}</td>
                <td class="small soft">
                  {{ step.inside
                  }}<template v-if="step.mealsBefore"> after {{ step.mealsBefore }} meals</template>
                </td>
              </tr>
            </tbody>
          </table>
          <p class="small soft">{{ ladder.racks }} racks</p>
        </v-card>
      </div>
    </StateBlock>
    <LadderDialog v-if="editing" v-bind="editing" @close="editing = null" />
  </div>
</template>

<style scoped>
.intro {
  max-width: 70ch;
  margin-bottom: 16px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(440px, 100%), 1fr));
  gap: 16px;
}
.card {
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 16px;
}
td {
  padding: 4px 14px 4px 0;
}
</style>
