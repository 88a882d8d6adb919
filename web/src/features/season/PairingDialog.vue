<script setup lang="ts">
import { newPairing, validate, type FieldProblem } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { localToday, oddsWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useAnimals } from '../../stores/queries.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';
import DayField from '../../ui/DayField.vue';
import OutcomeList from '../../ui/OutcomeList.vue';
import { useOdds } from '../../workers/useOdds.ts';

/** A new pairing, with what it can produce and what to beware of before the animals are put together. */
const emit = defineEmits<{ close: [] }>();
const { data: animals } = useAnimals();
const notices = useNotices();
const { draft, discard } = useDraft('pairing', () => ({
  season: Number(localToday().slice(0, 4)),
  damId: null as string | null,
  sireId: null as string | null,
  secondId: null as string | null,
  weight: 50,
  startedOn: localToday() as string | null,
}));
const local = ref<readonly FieldProblem[]>([]);
const write = useWrite(api.addPairing);

const labelOf = (id: string | null): string | null =>
  animals.value?.find((animal) => animal.id === id)?.label ?? null;
const question = computed(() => {
  const dam = labelOf(draft.damId);
  const sires = [draft.sireId, draft.secondId].map(labelOf).filter((label) => label !== null);
  return dam && sires.length > 0 ? { dam, sires } : null;
});
const { answer } = useOdds(question);
const cautions = computed(() => [...new Set((answer.value ?? []).flatMap((entry) => entry.cautions))]);
const errorsOf = (...fields: string[]): string[] =>
  fields.flatMap((field) => [
    ...local.value.filter((p) => p.field === field).map((p) => p.message),
    ...write.errorsOf(field),
  ]);

async function submit(): Promise<void> {
  const candidates = [
    { animalId: draft.sireId, weight: draft.secondId ? 100 - draft.weight : 100 },
    ...(draft.secondId ? [{ animalId: draft.secondId, weight: draft.weight }] : []),
  ];
  const result = validate(newPairing, {
    season: draft.season,
    damId: draft.damId ?? undefined,
    sires: candidates.map(({ animalId, weight }) => ({
      animalId: animalId ?? undefined,
      weight: weight / 100,
    })),
    startedOn: draft.startedOn ?? undefined,
  });
  local.value = result.ok ? [] : result.problems;
  if (!result.ok || !(await write.run(result.value))) return;
  discard();
  notices.say('Pairing recorded');
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="true" max-width="760" @update:model-value="emit('close')">
    <v-card title="New pairing">
      <v-card-text>
        <form id="pairing-form" class="fields" novalidate @submit.prevent="submit">
          <AnimalPicker
            v-model="draft.damId"
            label="Female"
            :animals="animals ?? []"
            sex="female"
            :errors="errorsOf('damId')"
          />
          <AnimalPicker
            v-model="draft.sireId"
            label="Male"
            :animals="animals ?? []"
            sex="male"
            :errors="errorsOf('sires', 'sires.0.animalId')"
          />
          <AnimalPicker
            v-model="draft.secondId"
            label="Second possible male, if any"
            :animals="animals ?? []"
            sex="male"
            clearable
            :errors="errorsOf('sires.1', 'sires.1.animalId')"
          />
          <v-slider
            v-if="draft.secondId"
            v-model="draft.weight"
            label="Chance of the second"
            class="wide"
            :min="5"
            :max="95"
            :step="5"
            :error-messages="errorsOf('sires.1.weight')"
            hide-details="auto"
          >
            <template #append
              ><span class="num">{{ oddsWords(draft.weight / 100) }}</span></template
            >
          </v-slider>
          <v-number-input
            v-model="draft.season"
            label="Season"
            :min="1990"
            :max="2100"
            control-variant="hidden"
            :error-messages="errorsOf('season')"
          />
          <DayField v-model="draft.startedOn" label="Together since" :errors="errorsOf('startedOn')" />
          <v-alert
            v-if="
              write.general([
                'damId',
                'sires',
                'sires.0.animalId',
                'sires.1',
                'sires.1.animalId',
                'season',
                'startedOn',
              ])
            "
            type="error"
            variant="tonal"
            :icon="false"
            class="wide"
            role="alert"
          >
            {{ write.message.value }}
          </v-alert>
        </form>
        <v-alert
          v-for="caution in cautions"
          :key="caution"
          type="warning"
          variant="tonal"
          :icon="false"
          class="mt-4"
          >{{ caution }}</v-alert
        >
        <template v-if="answer">
          <section v-for="(entry, index) in answer" :key="index" class="mt-4">
            <h3>
              {{
                answer.length > 1
                  ? `With ${index === 0 ? 'the first' : 'the second'} male`
                  : 'What this pair can produce'
              }}
            </h3>
            <OutcomeList :outcomes="entry.outcomes.slice(0, 12)" />
            <p v-if="entry.outcomes.length > 12" class="small soft">
              and {{ entry.outcomes.length - 12 }} rarer kinds
            </p>
          </section>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="(discard(), emit('close'))">Discard</v-btn>
        <v-spacer />
        <v-btn type="submit" form="pairing-form" color="primary" variant="flat" :loading="write.busy.value"
          >Record pairing</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
