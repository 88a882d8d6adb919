<script setup lang="ts">
import { roomAssumptions } from '@karyotome/contract';
import { addDays, type LearnedPace, type Mending, type RoomQuestion } from '@karyotome/core';
import { roomChangeWords } from '@karyotome/words';
import { computed, defineAsyncComponent, reactive, watch } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords, shortDay } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useRoom } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import StateBlock from '../../ui/StateBlock.vue';
import { useRoomForecast } from '../../workers/useRoomForecast.ts';
import RacksNav from '../racks/RacksNav.vue';

const RoomChart = defineAsyncComponent(() => import('./RoomChart.vue'));
/** Will the room last: how many places of each kind are needed, when it is full, and what would help. */
const { data, status, error, refetch } = useRoom();
const session = useSession();
const notices = useNotices();
const saving = useWrite(api.changeRoomAssumptions);
/** What is tried out, on top of what is current: percent, weeks, more places, clutches left out. */
const trial = reactive({
  salePace: 8 as number | null,
  heldBack: 15 as number | null,
  saleAgeWeeks: 10 as number | null,
  places: {} as Record<string, number | null>,
  /** Let up at this share of the ladder's weights, percent. */
  upAt: 100 as number | null,
  planned: true,
});
function begin(): void {
  if (!data.value) return;
  const { salePace, heldBack, saleAgeWeeks } = data.value.assumptions;
  Object.assign(trial, {
    salePace: Math.round(salePace * 100),
    heldBack: Math.round(heldBack * 100),
    saleAgeWeeks,
    places: {},
    upAt: 100,
    planned: true,
  });
}
watch(() => data.value?.version, begin, { immediate: true });
const question = computed<RoomQuestion | null>(() => {
  const asked = data.value?.question;
  if (!asked) return null;
  const up = (trial.upAt ?? 100) / 100;
  return {
    ...asked,
    kinds: asked.kinds.map((kind) => ({
      ...kind,
      places: kind.places + (trial.places[kind.key] ?? 0),
      maxG: kind.maxG === null ? null : kind.maxG * up,
    })),
    clutches: trial.planned ? asked.clutches : asked.clutches.filter(({ chance }) => chance === 1),
    salePace: (trial.salePace ?? 0) / 100,
    heldBack: (trial.heldBack ?? 0) / 100,
    saleAgeWeeks: trial.saleAgeWeeks ?? 0,
  };
});
const { forecast, mending, progress, cancel } = useRoomForecast(() => question.value);
const weekDays = computed(() =>
  Array.from({ length: data.value?.question.weeks ?? 0 }, (_, week) =>
    shortDay(addDays(data.value!.today, 7 * week)),
  ),
);
/** Kinds without places and without need say nothing. */
const kinds = computed(() =>
  (forecast.value?.kinds ?? []).filter((kind) => kind.places > 0 || kind.weeks.some(({ high }) => high > 0)),
);
const week = (index: number): string => dayWords(addDays(data.value!.today, 7 * index));
const isTried = computed(() => {
  const current = data.value?.assumptions;
  if (!current) return false;
  return (
    trial.salePace !== Math.round(current.salePace * 100) ||
    trial.heldBack !== Math.round(current.heldBack * 100) ||
    trial.saleAgeWeeks !== current.saleAgeWeeks ||
    trial.upAt !== 100 ||
    !trial.planned ||
    Object.values(trial.places).some((more) => (more ?? 0) !== 0)
  );
});
function useLearned({ perWeek, offeredAtWeeks }: LearnedPace): void {
  trial.salePace = Math.round(perWeek * 100);
  if (offeredAtWeeks !== null) trial.saleAgeWeeks = Math.round(offeredAtWeeks);
}
function tryOut({ changed }: Mending): void {
  trial.salePace = Math.round(changed.salePace * 100);
  trial.heldBack = Math.round(changed.heldBack * 1000) / 10;
  for (const kind of changed.kinds) {
    const had = data.value!.question.kinds.find(({ key }) => key === kind.key)!;
    trial.places[kind.key] = kind.places - had.places;
    if (kind.maxG !== null && had.maxG !== null) trial.upAt = Math.round((kind.maxG / had.maxG) * 100);
  }
}
async function save(): Promise<void> {
  const input = {
    salePace: (trial.salePace ?? 0) / 100,
    heldBack: (trial.heldBack ?? 0) / 100,
    saleAgeWeeks: trial.saleAgeWeeks ?? 0,
  };
  if (roomAssumptions.validate(input).error)
    return notices.warn('Shares lie between 0 and 100%, weeks between 0 and 156.');
  if (await saving.run(input, data.value!.version)) notices.say('Used from now on');
  else notices.warn(saving.message.value ?? 'It could not be saved');
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Will the room last</h1>
      <RacksNav />
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.question.kinds.length === 0"
      empty-title="No rack yet"
      empty-text="With racks and animals in them, the places needed are forecast week by week for a year."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/racks">To the racks</v-btn></template>
      <div v-if="data" class="grid">
        <div class="stack">
          <div v-if="progress !== null" class="row work" role="status">
            <v-progress-linear :model-value="progress * 100" aria-label="Forecasting" />
            <v-btn size="small" variant="text" @click="cancel">Stop</v-btn>
          </div>
          <v-card v-for="kind in kinds" :key="kind.key" class="box">
            <div class="row">
              <h2>{{ kind.name }}</h2>
              <v-spacer />
              <strong v-if="kind.tipsOver !== null" class="over"
                >full from about {{ week(kind.tipsOver) }}</strong
              >
              <strong v-else-if="kind.risky !== null" class="over">tight from {{ week(kind.risky) }}</strong>
              <span v-else class="soft">lasts the year</span>
            </div>
            <RoomChart :kind="kind" :week-days="weekDays" />
            <details>
              <summary class="small">As a table</summary>
              <div class="scroll">
                <table class="figures small">
                  <thead>
                    <tr>
                      <th>Week of</th>
                      <th class="num">needed</th>
                      <th class="num">between</th>
                      <th class="num">places</th>
                      <th class="num">too few in</th>
                    </tr>
                  </thead>
                  <tbody>
                    <tr v-for="(one, i) in kind.weeks" :key="i">
                      <td>{{ weekDays[i] }}</td>
                      <td class="num">{{ one.mid }}</td>
                      <td class="num">{{ one.low }} and {{ one.high }}</td>
                      <td class="num">{{ kind.places }}</td>
                      <td class="num">{{ Math.round(one.over * 100) }}%</td>
                    </tr>
                  </tbody>
                </table>
              </div>
            </details>
          </v-card>
          <p class="small soft">
            The line is the middle of {{ reader().number(data.question.runs) }} runs; nine of ten lie in the
            band. It rests on {{ data.rests.animals }} animals in tubs and how each is growing,
            {{ data.rests.forSale }} of them for sale in time, and {{ data.rests.clutches }} clutches in the
            incubator and from open pairings.
          </p>
        </div>
        <div class="stack">
          <v-card class="box">
            <h2>What would help</h2>
            <p v-if="mending === null && progress === null && !forecast" class="soft">
              Nothing was computed yet.
            </p>
            <p v-else-if="mending === null" class="soft">Trying…</p>
            <p v-else-if="mending.length === 0" class="soft">
              {{
                kinds.some(({ risky }) => risky !== null)
                  ? 'Nothing of what was tried brings it further.'
                  : 'Nothing needs mending.'
              }}
            </p>
            <div v-for="one in mending ?? []" :key="one.code" class="mend">
              <span
                >{{ roomChangeWords(one, reader()) }}:
                <strong>{{
                  one.risky === null ? 'it lasts the year' : `lasts until ${week(one.risky)}`
                }}</strong></span
              >
              <v-btn size="small" variant="outlined" @click="tryOut(one)">Try</v-btn>
            </div>
          </v-card>
          <v-card class="box">
            <div class="row">
              <h2>Try changes</h2>
              <v-spacer />
              <v-btn v-if="isTried" size="small" variant="text" @click="begin">As it is</v-btn>
            </div>
            <p v-if="data.learned" class="small">
              Your {{ data.learned.sold }} sales teach: {{ reader().percent(data.learned.perWeek) }} of those
              for sale leave in a week<template v-if="data.learned.offeredAtWeeks !== null"
                >, offered from week {{ Math.round(data.learned.offeredAtWeeks) }}</template
              >.
              <v-btn size="small" variant="text" @click="useLearned(data.learned)">Use it</v-btn>
            </p>
            <div class="fields">
              <v-number-input
                v-model="trial.salePace"
                label="Sold in a week, % of those for sale"
                :min="0"
                :max="100"
              />
              <v-number-input
                v-model="trial.heldBack"
                label="Held back, % of hatchlings"
                :min="0"
                :max="100"
              />
              <v-number-input v-model="trial.saleAgeWeeks" label="For sale from week" :min="0" :max="156" />
              <v-number-input
                v-model="trial.upAt"
                label="Moved up at, % of the ladder’s weight"
                :min="50"
                :max="150"
              />
              <v-number-input
                v-for="kind in data.question.kinds"
                :key="kind.key"
                v-model="trial.places[kind.key]"
                :label="`More places: ${kind.name}`"
                :min="-kind.places"
                :max="2000"
              />
              <v-checkbox
                v-model="trial.planned"
                label="With clutches from open pairings"
                hide-details
                density="compact"
                class="wide"
              />
            </div>
            <v-btn
              v-if="session.mayManage && isTried"
              variant="outlined"
              :loading="saving.busy.value"
              @click="save"
              >Use this pace from now on</v-btn
            >
            <p class="small soft">
              Pace, holdbacks and the week of sale are hypotheses: nobody has counted them here. An egg
              hatches with 85%, a pairing without eggs comes to a clutch by its stage.
            </p>
          </v-card>
        </div>
      </div>
    </StateBlock>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
.box {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 14px 16px;
}
.work {
  flex-wrap: nowrap;
}
.over {
  color: rgb(var(--v-theme-error));
}
.mend {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  padding-top: 8px;
  border-top: 1px solid var(--hair);
}
@media (width < 900px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
