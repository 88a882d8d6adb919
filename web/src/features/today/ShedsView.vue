<script setup lang="ts">
import type { RoundAnimal } from '@karyotome/contract';
import { computed } from 'vue';
import { dayWords, farmToday, sexSign, spanOfDays } from '../../format/format.ts';
import { useSheds } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import { useQuickRecord } from '../records/useQuickRecord.ts';
import { stopsOf } from '../rounds/useRoundPlace.ts';
import { ROUND_ACTS, type RoundAct } from '../rounds/round-acts.ts';
import TodayNav from './TodayNav.vue';
import { soakAdvice } from '@karyotome/words';
import { reader } from '../../format/reader.ts';

/** Who is in shed, and what is still to come off. */
const { data, status, error, refetch } = useSheds();
const session = useSession();
const quick = useQuickRecord();
const all = computed(() => (data.value?.racks ?? []).flatMap((rack) => stopsOf(rack)));
const shedding = computed(() =>
  all.value
    .filter(({ animal }) => animal.shed !== null)
    .toSorted((a, b) => (a.animal.shed!.expected.mid < b.animal.shed!.expected.mid ? -1 : 1)),
);
const soaking = computed(() => all.value.filter(({ animal }) => animal.soak !== null));
const first = computed(() => all.value.filter(({ animal }) => animal.meal?.verdict === 'first-shed'));
const act = (key: string): RoundAct => ROUND_ACTS.find((one) => one.key === key)!;
const STAGES = ['d', 'b', 'c', 's', 'p'].map(act);
function log(animal: RoundAnimal, chosen: RoundAct): Promise<void> {
  const { record, text } = chosen.enter(animal)!;
  return quick.log(animal, record, text);
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Sheds</h1>
      <TodayNav />
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="shedding.length + soaking.length + first.length === 0"
      empty-title="Nobody is in shed"
      empty-text="Signs are seen on the round: dull, blue, clear. From the first sign on the animal stands here, with the day its skin is expected to come off."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/rounds">Go round</v-btn></template>
      <div class="stack">
        <v-card v-if="shedding.length > 0" class="box">
          <h2>
            In shed <span class="small soft">{{ shedding.length }}</span>
          </h2>
          <p class="small soft">
            Humidity up from 50 to 60% to 75 to 80%. No handling and no cleaning while it lasts; a refused
            meal does not count. After it: is the skin in one piece, are both eye caps on it? Clean, weigh.
          </p>
          <div v-for="{ animal, rack, place } in shedding" :key="animal.id" class="line">
            <span class="small soft">{{ rack.name }} {{ place }}</span>
            <router-link :to="`/animals/${animal.id}`" class="who"
              >{{ animal.number }} {{ sexSign(animal.sex) }}</router-link
            >
            <span
              ><strong>{{ animal.shed!.stage }}</strong
              >, day {{ animal.shed!.days
              }}<strong v-if="animal.shed!.late" class="late"> late: look again</strong>
              <span class="small soft block"
                >skin expected {{ spanOfDays(animal.shed!.expected.from, animal.shed!.expected.to) }},
                {{
                  animal.shed!.ownCycles === 0
                    ? 'as usual for its age'
                    : `also by ${animal.shed!.ownCycles} sheds of its own`
                }}</span
              ></span
            >
            <span v-if="session.mayRecord" class="acts">
              <v-btn
                v-for="one in STAGES"
                :key="one.key"
                size="small"
                variant="outlined"
                :disabled="quick.busy.value"
                :aria-label="`${animal.number}: ${one.title}`"
                @click="log(animal, one)"
                >{{ one.title }}</v-btn
              >
            </span>
          </div>
        </v-card>
        <v-card v-if="soaking.length > 0" class="box">
          <h2>
            To soak <span class="small soft">{{ soaking.length }}</span>
          </h2>
          <p class="small soft">
            {{ soakAdvice(reader()) }}
          </p>
          <div v-for="{ animal, rack, place } in soaking" :key="animal.id" class="line">
            <span class="small soft">{{ rack.name }} {{ place }}</span>
            <router-link :to="`/animals/${animal.id}`" class="who"
              >{{ animal.number }} {{ sexSign(animal.sex) }}</router-link
            >
            <span>
              <strong v-if="animal.soak!.veterinarian" class="late"
                >A veterinarian’s: {{ animal.soak!.soaks.length }} soaks did not do it</strong
              >
              <template v-else
                >Day {{ animal.soak!.soaks.length + 1
                }}<template v-if="!animal.soak!.dueToday">, done today</template></template
              >
              <span class="small soft block">
                {{
                  {
                    pieces: 'shed in pieces',
                    caps: 'eye caps retained',
                    both: 'shed in pieces, eye caps retained',
                  }[animal.soak!.what]
                }}
                on {{ dayWords(animal.soak!.since)
                }}<template v-if="animal.soak!.soaks.length > 0"
                  >, soaked {{ animal.soak!.soaks.map(dayWords).join(', ') }}</template
                >
              </span>
            </span>
            <span v-if="session.mayRecord" class="acts">
              <v-btn
                v-if="!animal.soak!.soaks.includes(farmToday())"
                size="small"
                variant="outlined"
                :disabled="quick.busy.value"
                @click="log(animal, act('k'))"
                >Soaked</v-btn
              >
              <v-btn
                size="small"
                variant="outlined"
                :disabled="quick.busy.value"
                @click="log(animal, act('e'))"
                >All off now</v-btn
              >
            </span>
          </div>
        </v-card>
        <v-card v-if="first.length > 0" class="box">
          <h2>
            Before the first shed <span class="small soft">{{ first.length }}</span>
          </h2>
          <p class="small soft">
            Seven to ten days after hatching. No meal before it: they live on their yolk.
          </p>
          <p class="row">
            <router-link v-for="{ animal } in first" :key="animal.id" :to="`/animals/${animal.id}`">{{
              animal.number
            }}</router-link>
          </p>
        </v-card>
      </div>
    </StateBlock>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.line {
  display: grid;
  grid-template-columns: 130px 120px minmax(180px, 1fr) auto;
  align-items: center;
  gap: 4px 14px;
  padding: 8px 0;
  border-top: 1px solid var(--hair);
}
.block {
  display: block;
}
.late {
  color: rgb(var(--v-theme-error));
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
@media (width < 900px) {
  .line {
    grid-template-columns: 1fr 1fr;
  }
  .line > :nth-child(n + 3) {
    grid-column: 1 / -1;
  }
  .acts :deep(.v-btn) {
    min-height: 44px;
  }
}
</style>
