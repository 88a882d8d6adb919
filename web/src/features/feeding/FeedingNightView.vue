<script setup lang="ts">
import { mealWhy, placeWords } from '@karyotome/words';
import { mdiPrinterOutline } from '@mdi/js';
import { computed, ref } from 'vue';
import { agoWords, dayWords, massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useFeeding, useFeedingNight } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import StateBlock from '../../ui/StateBlock.vue';
import WhyPanel from '../../ui/WhyPanel.vue';
import TableLink from '../../ui/TableLink.vue';
import { VERDICT_WORDS } from '../animal/care-words.ts';
import TodayNav from '../today/TodayNav.vue';
import StockDialog from './StockDialog.vue';

/** What to thaw, what is left after it, and who eats. Prints on one sheet. */
const { data, status, error, refetch } = useFeeding();
const { data: night } = useFeedingNight();
const session = useSession();
const notices = useNotices();
const booking = ref<{ prey: string; kind: 'receipt' | 'count' | 'loss' } | null>(null);
const eating = computed(() => (night.value ?? []).filter(({ meal }) => meal.verdict === 'due'));
const passed = computed(() => (night.value ?? []).filter(({ meal }) => meal.verdict !== 'due'));
const live = computed(() => eating.value.filter(({ meal }) => meal.state !== 'frozen-thawed'));
const total = computed(() => (data.value?.thaw ?? []).reduce((sum, { count }) => sum + count, 0));
const voiding = useWrite((id: string) => api.voidStock(id, 'Undone'));
const KIND = { receipt: 'came in', count: 'counted', loss: 'thrown away' } as const;
async function takeBack(id: string): Promise<void> {
  if (await voiding.run(id)) notices.say('Taken back');
  else notices.warn(voiding.message.value ?? 'It could not be taken back');
}
const print = (): void => window.print();
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Feeding night</h1>
      <TodayNav class="no-print" />
      <TableLink list="feedingNight" />
      <v-btn variant="outlined" :prepend-icon="mdiPrinterOutline" class="no-print" @click="print"
        >Print</v-btn
      >
      <v-btn color="primary" to="/rounds" class="no-print">Go round</v-btn>
    </div>
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <div v-if="data" class="night">
        <div class="stack">
          <v-card class="box">
            <div class="row">
              <h2>Thaw {{ dayWords(data.today) }}</h2>
              <v-spacer />
              <span class="soft num">{{ total }} in all</span>
            </div>
            <ul v-if="data.thaw.length > 0" class="thaw">
              <li v-for="line in data.thaw" :key="line.prey">
                <strong class="num">{{ line.count }}</strong> {{ line.prey }}
              </li>
            </ul>
            <p v-else class="soft">Nothing to thaw tonight.</p>
            <p v-if="live.length > 0" class="small">
              Not frozen:
              {{ live.map(({ number, meal }) => `${number} (${meal.state} ${meal.prey})`).join(', ') }}. A
              live adult rodent is never left alone with a snake.
            </p>
            <p class="small soft">
              Right through, never cooked, never cold inside; warmed to body heat, warmest at the head. Away
              from kitchen surfaces; wash hands.
            </p>
          </v-card>
          <v-card class="box">
            <div class="row">
              <h2>Freezer</h2>
              <v-spacer />
              <v-btn
                v-if="session.mayRecord"
                size="small"
                variant="outlined"
                class="no-print"
                @click="booking = { prey: data.thaw[0]?.prey ?? 'rat pup', kind: 'receipt' }"
                >Book in or count…</v-btn
              >
            </div>
            <div v-if="data.freezer.length > 0" class="scroll">
              <table class="figures">
                <thead>
                  <tr>
                    <th>Prey</th>
                    <th class="num">there</th>
                    <th class="num">left after</th>
                    <th class="num">a week</th>
                    <th class="num">lasts until</th>
                    <th class="num">order at</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="line in data.freezer" :key="line.prey" :class="{ order: line.order }">
                    <td>{{ line.prey }} <strong v-if="line.order" class="small">order</strong></td>
                    <td class="num">{{ line.inStock }}</td>
                    <td class="num">{{ line.left }}</td>
                    <td class="num">{{ line.aWeek.toFixed(1) }}</td>
                    <td class="num">
                      {{
                        line.runsOutOn === null
                          ? 'not used'
                          : line.left <= 0
                            ? 'tonight'
                            : dayWords(line.runsOutOn)
                      }}
                    </td>
                    <td class="num">{{ line.reorderAt }}</td>
                  </tr>
                </tbody>
              </table>
            </div>
            <p v-else class="soft">
              Book in what lies in the freezer, and it is counted down with every meal from then on.
            </p>
            <p class="small soft">
              At the use of the last eight weeks. Ordered in time to last {{ data.order.leadDays }} days with
              {{ Math.round(data.order.service * 100) }}% certainty.
            </p>
            <details v-if="data.stock.length > 0" class="no-print">
              <summary>What came, was counted and was lost</summary>
              <ul class="entries">
                <li v-for="entry in data.stock" :key="entry.id">
                  <span class="small soft">{{ dayWords(entry.on) }}</span>
                  {{ entry.quantity }} {{ entry.prey }}, {{ KIND[entry.kind] }}
                  <span class="small soft">{{ entry.author }}{{ entry.note ? `, ${entry.note}` : '' }}</span>
                  <v-btn
                    v-if="session.mayRecord"
                    size="small"
                    variant="text"
                    :aria-label="`Take back ${entry.quantity} ${entry.prey}`"
                    @click="takeBack(entry.id)"
                    >Take back</v-btn
                  >
                </li>
              </ul>
            </details>
          </v-card>
        </div>
        <div class="stack">
          <v-card class="box">
            <h2>
              Eats tonight <span class="small soft">{{ eating.length }}</span>
            </h2>
            <p v-if="eating.length === 0" class="soft">Nobody is due.</p>
            <table v-else class="figures">
              <tbody>
                <tr v-for="{ id, number, place, meal } in eating" :key="id">
                  <td class="small soft">{{ place ? placeWords(place) : '' }}</td>
                  <td>
                    <router-link :to="`/animals/${id}`">{{ number }}</router-link>
                  </td>
                  <td>
                    {{ meal.prey }}<span v-if="meal.state !== 'frozen-thawed'">, {{ meal.state }}</span>
                    <span v-if="meal.plan.step && meal.plan.index > 0" class="small step">{{
                      meal.plan.step.name
                    }}</span>
                    <span v-if="meal.dueOn < data.today" class="small soft">
                      due {{ agoWords(meal.dueOn) }}</span
                    >
                  </td>
                  <td class="num">{{ massWords(meal.massG) }}</td>
                  <td class="no-print">
                    <WhyPanel :title="`${number} eats tonight`"
                      ><p>{{ mealWhy(meal, reader()) }}</p></WhyPanel
                    >
                  </td>
                </tr>
              </tbody>
            </table>
          </v-card>
          <v-card v-if="passed.length > 0" class="box">
            <h2>
              Passed over <span class="small soft">{{ passed.length }}</span>
            </h2>
            <table class="figures">
              <tbody>
                <tr v-for="{ id, number, place, meal } in passed" :key="id">
                  <td class="small soft">{{ place ? placeWords(place) : '' }}</td>
                  <td>
                    <router-link :to="`/animals/${id}`">{{ number }}</router-link>
                  </td>
                  <td>{{ VERDICT_WORDS[meal.verdict] }}</td>
                  <td class="no-print">
                    <WhyPanel :title="`${number} is passed over`"
                      ><p>{{ mealWhy(meal, reader()) }}</p></WhyPanel
                    >
                  </td>
                </tr>
              </tbody>
            </table>
          </v-card>
        </div>
      </div>
    </StateBlock>
    <StockDialog v-if="booking" :begin="booking" @close="booking = null" />
  </div>
</template>

<style scoped>
.night {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 16px;
  align-items: start;
}
.box {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.thaw {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 26px;
  padding: 0;
  list-style: none;
  font-size: 1.15rem;
}
.thaw strong {
  font-size: 1.7rem;
}
.order td {
  font-weight: 560;
}
.step {
  display: block;
  color: rgb(var(--v-theme-secondary));
}
.entries {
  padding: 8px 0 0;
  list-style: none;
}
@media (width < 900px) {
  .night {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
