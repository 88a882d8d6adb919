<script setup lang="ts">
import type { HatchlingView, RecordKind } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { dayWords, oddsWords, temperatureWords } from '../../format/format.ts';
import { useBench } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import OutcomeList from '../../ui/OutcomeList.vue';
import StateBlock from '../../ui/StateBlock.vue';
import RecordDialog from '../records/RecordDialog.vue';
import type { RecordSubject } from '../records/useRecordForm.ts';
import HatchlingCard from './HatchlingCard.vue';
import IdentifyDialog from './IdentifyDialog.vue';

const route = useRoute();
const { data, status, error, refetch } = useBench(() => String(route.params['id']));
const session = useSession();
const identifying = ref<HatchlingView | null>(null);
const subject = ref<RecordSubject | null>(null);
const parents = computed(() => (data.value ? [data.value.dam, ...data.value.sires] : []));

/** What an exact test of the clutch against its pairing says, in plain words. */
function fitWords(p: number): string {
  if (p === 0) return 'As recorded, the pair cannot give this.';
  const chance = `A result at least as unlikely comes up in ${oddsWords(p)} of such clutches (exact test).`;
  if (p > 0.05) return `${chance} Luck, not news.`;
  return `${chance} Look again at the identifications, the sire, and what the parents carry.`;
}
function open(hatchling: HatchlingView, kind: RecordKind): void {
  if (kind === 'identification') identifying.value = hatchling;
  else subject.value = { animalId: hatchling.id, number: hatchling.number, kind };
}
</script>

<template>
  <div class="place">
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <template v-if="data">
        <div class="place-head">
          <h1>Clutch {{ data.clutch.name }}</h1>
          <span class="soft">
            laid {{ dayWords(data.clutch.laidOn) }}, {{ data.clutch.eggs }} eggs<template
              v-if="data.clutch.slugs"
              >, {{ data.clutch.slugs }} slugs</template
            ><template v-if="data.clutch.incubationC"
              >, at
              {{ temperatureWords(data.clutch.incubationC, session.settings?.temperatureUnit) }}</template
            >
            <template v-if="data.clutch.hatchedOn"
              >, hatched {{ dayWords(data.clutch.hatchedOn) }} (day {{ data.clutch.day }})</template
            >
            <template v-else>, day {{ data.clutch.day }}</template>
          </span>
          <v-btn variant="outlined" :to="`/season/clutches/${data.clutch.id}`">Eggs</v-btn>
        </div>
        <div class="desk">
          <aside class="stack">
            <v-card class="parents">
              <router-link
                v-for="parent in parents"
                :key="parent.id"
                :to="`/animals/${parent.id}`"
                class="plain parent"
              >
                <strong>{{ parent.role === 'dam' ? '♀' : '♂' }} {{ parent.number }}</strong> {{ parent.name }}
                <span v-if="parent.role === 'sire' && parent.p < 1" class="small soft"
                  >{{ oddsWords(parent.p) }} before any gene</span
                >
                <span class="small soft genes">{{ parent.label }}</span>
              </router-link>
            </v-card>
            <v-card class="box">
              <h2>What this pair can produce</h2>
              <OutcomeList :outcomes="data.outcomes.slice(0, 24)" />
              <p v-if="data.outcomes.length > 24" class="small soft">
                and {{ data.outcomes.length - 24 }} rarer kinds
              </p>
            </v-card>
            <v-card v-if="data.fit" class="box">
              <h2>Against the odds</h2>
              <table class="fit small">
                <thead>
                  <tr>
                    <th scope="col">Identified as</th>
                    <th scope="col" class="num">Seen</th>
                    <th scope="col" class="num">Expected</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="kind in data.fit.kinds" :key="kind.label">
                    <td>{{ kind.label }}</td>
                    <td class="num">{{ kind.seen }}</td>
                    <td class="num">{{ kind.expected.toFixed(1) }}</td>
                  </tr>
                </tbody>
              </table>
              <p class="small soft">{{ fitWords(data.fit.p) }}</p>
            </v-card>
            <v-alert
              v-for="caution in data.cautions"
              :key="caution"
              type="warning"
              variant="tonal"
              :icon="false"
              >{{ caution }}</v-alert
            >
          </aside>
          <div>
            <v-card v-if="data.hatchlings.length === 0" class="box">
              <h2>Still in the egg</h2>
              <p>
                When they have left the egg they are numbered on the page of their eggs. Never pull a
                hatchling out: it takes one to three days to absorb the yolk.
              </p>
            </v-card>
            <div v-else class="grid">
              <HatchlingCard
                v-for="hatchling in data.hatchlings"
                :key="hatchling.id"
                :hatchling="hatchling"
                :may-record="session.mayRecord"
                @act="open(hatchling, $event)"
              />
            </div>
          </div>
        </div>
        <IdentifyDialog
          v-if="identifying"
          :hatchling="identifying"
          :outcomes="data.outcomes"
          @close="identifying = null"
        />
        <RecordDialog v-if="subject" :subject="subject" @close="subject = null" />
      </template>
    </StateBlock>
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: 350px 1fr;
  align-items: start;
  gap: 16px;
}
.parents,
.box {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.genes {
  display: block;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(250px, 100%), 1fr));
  gap: 14px;
}
/* One kind a line, its numbers under one another. */
.fit {
  width: 100%;
  border-collapse: collapse;
}
.fit th {
  font-weight: 560;
  text-align: left;
}
.fit th.num {
  text-align: right;
}
.fit td,
.fit th {
  padding: 2px 0 2px 8px;
  vertical-align: top;
}
.fit td:first-child,
.fit th:first-child {
  padding-left: 0;
}
@media (width < 900px) {
  .desk {
    grid-template-columns: 1fr;
  }
}
</style>
