<script setup lang="ts">
import type { DeskLine } from '@karyotome/contract';
import { mayFollow, STATUS_AFTER } from '@karyotome/core';
import { tellLack } from '@karyotome/words';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../../api/resources.ts';
import { appetiteWords, massWords, oddsWords, sexSign, sexWords, statusWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useAnimalWaits, useDesk, usePlanner } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import OwnGenesField from '../../ui/OwnGenesField.vue';
import WeightLine from '../../ui/WeightLine.vue';
import StateBlock from '../../ui/StateBlock.vue';
import SureText from '../../ui/SureText.vue';
import type { GainsQuestion } from '../../workers/planner-questions.ts';
import { useAnswer } from '../../workers/useAnswer.ts';
import { usePlannerWorker } from '../../workers/usePlanner.ts';
import { usePlannerDraft } from '../planner/planner-draft.ts';
import { waitWords } from './wait-words.ts';
import { useStatusActs, type PlainKind } from './useStatusActs.ts';

/** A clutch side by side: who is held back, who is offered. */
const route = useRoute();
const id = computed(() => String(route.params['id']));
const { data, status, error, refetch } = useDesk(id);
const { data: collection } = usePlanner();
const session = useSession();
const { decide, busy } = useStatusActs();
const CHOICES: readonly { kind: PlainKind; title: string }[] = [
  { kind: 'held-back', title: 'Hold back' },
  { kind: 'offered', title: 'Offer' },
  { kind: 'undecided', title: 'Undecided' },
];
const isDecidable = ({ animal }: DeskLine): boolean => mayFollow('held-back', animal.status);

const chosen = ref<readonly string[]>([]);
const selected = computed(() =>
  (data.value?.lines ?? []).filter(({ id: one }) => chosen.value.includes(one)),
);
function toggle(one: string): void {
  chosen.value = chosen.value.includes(one)
    ? chosen.value.filter((other) => other !== one)
    : [...chosen.value, one];
}
async function act(lines: readonly DeskLine[], kind: PlainKind): Promise<void> {
  const ids = lines.map(({ id: one }) => one);
  if (
    await decide(
      ids,
      kind,
      lines.map(({ animal }) => animal.number),
    )
  )
    chosen.value = [];
}

/* What each would add to the breeder's plans. */
const { draft } = usePlannerDraft();
const target = ref(draft.target || (draft.targets[0]?.genes ?? ''));
const planner = usePlannerWorker(collection);
const question = computed((): GainsQuestion | null =>
  collection.value && data.value && target.value.trim() !== ''
    ? { ask: 'gains', target: target.value, candidates: data.value.lines.map(({ id: one }) => one) }
    : null,
);
const { answer } = useAnswer(planner, question);
const numberOf = (one: string): string =>
  collection.value?.animals.find((animal) => animal.id === one)?.number ?? '';
function gainOf({ id: one, animal }: DeskLine): string | null {
  if (!answer.value) return null;
  const gain = answer.value.gains.find((other) => other.id === one);
  if (!gain) return animal.sex === 'unknown' ? 'not sexed yet' : null;
  const without = answer.value.without?.perEgg ?? 0;
  if (!gain.best) return 'no pair of it can give this';
  const mate = animal.sex === 'female' ? gain.best.sire : gain.best.dam;
  const more = gain.best.perEgg > without + 1e-9;
  return `${oddsWords(gain.best.perEgg)} of eggs with ${numberOf(mate)}, ${more ? `without it ${oddsWords(without)}` : 'no more than without it'}`;
}
const { data: waits } = useAnimalWaits(id);
const waitOf = ({ id: one }: DeskLine): string | null =>
  waitWords(waits.value?.find(({ animalId }) => animalId === one));
const curveWords = (off: number): string => {
  const share = Math.exp(off) - 1;
  if (Math.abs(share) < 0.03) return 'on the curve';
  return `${reader().percent(Math.abs(share))} ${share > 0 ? 'above' : 'below'} the curve`;
};
</script>

<template>
  <div class="place">
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.lines.length === 0"
      empty-title="Nothing has hatched yet"
      empty-text="Young appear here once they have left their eggs."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/bench">To the bench</v-btn></template>
      <template v-if="data">
        <div class="place-head">
          <h1>Clutch {{ data.clutch.name }}: who stays</h1>
          <span class="soft">{{ data.clutch.dam }} × {{ data.clutch.sires.join(' or ') }}</span>
          <v-spacer />
          <v-btn variant="text" :to="`/bench/${id}`">Bench</v-btn>
          <v-btn variant="text" to="/showcase/sales">Sales</v-btn>
        </div>
        <div class="target">
          <OwnGenesField v-model="target" label="What you breed for: what each would add" />
        </div>
        <div v-if="selected.length" class="chosen-bar row" role="toolbar" aria-label="With those chosen">
          <strong>{{ selected.length }} chosen</strong>
          <v-btn
            v-for="choice in CHOICES"
            :key="choice.kind"
            variant="outlined"
            :loading="busy"
            @click="act(selected, choice.kind)"
            >{{ choice.title }}</v-btn
          >
        </div>
        <div class="mates">
          <v-card v-for="line in data.lines" :key="line.id" class="mate">
            <img
              v-if="line.animal.pictureId"
              :src="api.thumbUrl(line.animal.pictureId)"
              :alt="`Picture of ${line.animal.number}`"
            />
            <div v-else class="no-picture small soft">no picture</div>
            <div class="text">
              <div class="row head">
                <h2>
                  <router-link :to="`/animals/${line.id}`" class="plain">{{
                    line.animal.number
                  }}</router-link>
                  <span :title="sexWords(line.animal.sex)">&nbsp;{{ sexSign(line.animal.sex) }}</span>
                </h2>
                <v-spacer />
                <v-checkbox-btn
                  v-if="session.maySell && isDecidable(line)"
                  :model-value="chosen.includes(line.id)"
                  :aria-label="`Choose ${line.animal.number}`"
                  class="choose"
                  @update:model-value="toggle(line.id)"
                />
              </div>
              <p class="small">
                <strong>{{ line.animal.label }}</strong>
              </p>
              <ul class="small claims">
                <li v-for="claim in line.claims.filter(({ certain }) => !certain)" :key="claim.label">
                  <SureText :text="claim.label" :p="claim.p" /> {{ oddsWords(claim.p) }}
                </li>
              </ul>
              <p class="small">
                <template v-if="line.animal.massG !== null"
                  >{{ massWords(line.animal.massG)
                  }}<template v-if="line.offCurve !== null"
                    >, {{ curveWords(line.offCurve) }}</template
                  ></template
                >
                <template v-else>never weighed</template>
              </p>
              <WeightLine v-if="line.weights.length > 1" :weights="line.weights" />
              <p class="small">{{ appetiteWords(line.appetite) }}</p>
              <p class="small">
                <strong v-if="line.lacks.length === 0" class="ready">Ready for sale</strong>
                <template v-else
                  >Not ready: {{ line.lacks.map((lack) => tellLack(lack, reader())).join('; ') }}</template
                >
              </p>
              <p v-if="waitOf(line)" class="small">{{ waitOf(line) }}</p>
              <p v-if="gainOf(line)" class="small gain">{{ gainOf(line) }}</p>
              <v-btn-toggle
                v-if="session.maySell && isDecidable(line)"
                :model-value="line.animal.status"
                density="comfortable"
                divided
                class="choices"
                :aria-label="`What becomes of ${line.animal.number}`"
              >
                <v-btn
                  v-for="choice in CHOICES"
                  :key="choice.kind"
                  :value="STATUS_AFTER[choice.kind]"
                  size="small"
                  :disabled="busy"
                  @click="act([line], choice.kind)"
                  >{{ choice.title }}</v-btn
                >
              </v-btn-toggle>
              <p v-else class="small soft">{{ statusWords(line.animal.status) }}</p>
            </div>
          </v-card>
        </div>
      </template>
    </StateBlock>
  </div>
</template>

<style scoped>
.target {
  max-width: 520px;
  margin-bottom: 8px;
}
.mates {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(270px, 100%), 1fr));
  gap: 16px;
}
.mate {
  display: flex;
  flex-direction: column;
}
.mate img,
.no-picture {
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: cover;
}
.no-picture {
  display: grid;
  place-items: center;
  background: rgb(var(--v-theme-surface-light));
}
.text {
  display: grid;
  flex: 1;
  gap: 6px;
  align-content: start;
  padding: 12px 14px 14px;
}
.head {
  flex-wrap: nowrap;
}
.choose {
  flex: none;
}
.claims {
  padding: 0;
  list-style: none;
}
.ready {
  color: rgb(var(--v-theme-success));
}
.choices {
  display: flex;
  align-self: end;
}
.choices .v-btn {
  flex: 1 1 auto;
  min-width: 0;
  padding: 0 6px;
}
.gain {
  padding: 6px 8px;
  border-radius: 6px;
  background: rgb(var(--v-theme-surface-light));
}
</style>
