<script setup lang="ts">
import type { RecordKind, RecordView } from '@karyotome/contract';
import { offeredStep } from '@karyotome/core';
import { concernWords, conflictWords, numberWords, SEE_A_VET } from '@karyotome/words';
import { mdiPencilOutline } from '@mdi/js';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useRoute } from 'vue-router';
import { reader } from '../../format/reader.ts';
import { dayWords, sexSign, sexWords } from '../../format/format.ts';
import { useAnimal } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import type { RecordSubject } from '../records/useRecordForm.ts';
import AnimalFacts from './AnimalFacts.vue';
import AlsoCalled from './AlsoCalled.vue';
import AdviceCard from './AdviceCard.vue';
import HealthCard from '../health/HealthCard.vue';
import CareCard from './CareCard.vue';
import ClaimList from './ClaimList.vue';
import OriginCard from './OriginCard.vue';
import ProjectsCard from './ProjectsCard.vue';
import LifelineCard from './LifelineCard.vue';
import LineageTree from './LineageTree.vue';
import PictureStrip from './PictureStrip.vue';
import SaleCard from './SaleCard.vue';
import PublishCard from './PublishCard.vue';
import RecordList from './RecordList.vue';

// The page stands before its forms are fetched.
const RecordDialog = defineAsyncComponent(() => import('../records/RecordDialog.vue'));
const EditDialog = defineAsyncComponent(() => import('./EditDialog.vue'));
const LabelsDialog = defineAsyncComponent(() => import('../bench/LabelsDialog.vue'));
const route = useRoute();
const { data, status, error, refetch } = useAnimal(() => String(route.params['id']));
const session = useSession();
const subject = ref<RecordSubject | null>(null);
const editing = ref(false);
const highlighted = ref<string | null>(null);
const ACTS: { kind: RecordKind; title: string }[] = [
  { kind: 'feeding', title: 'Meal' },
  { kind: 'weight', title: 'Weight' },
  { kind: 'shed', title: 'Shed' },
  { kind: 'move', title: 'Move' },
  { kind: 'identification', title: 'Identify' },
  { kind: 'sex', title: 'Sex' },
  { kind: 'care', title: 'Care' },
  { kind: 'note', title: 'Note' },
];
const acts = computed(() => ACTS.filter(({ kind }) => session.mayEnter(kind)));
function preyOf(): RecordSubject['prey'] {
  const meal = data.value?.nextMeal;
  if (!meal) return null;
  const { species, size, massG, state, plan } = meal;
  return { species, size, preyG: massG, state, step: offeredStep(plan) };
}
function open(kind: RecordKind, begin?: RecordSubject['begin'], correcting?: RecordView): void {
  const { id, number } = data.value!;
  subject.value = { animalId: id, number, kind, prey: preyOf(), ...(begin ? { begin } : {}), correcting };
}
/** The label whose code led here, held against the last one that was printed. */
const scanned = computed(() => {
  const issue = Number(route.query['label']);
  const last = data.value?.printedLabel;
  if (!Number.isInteger(issue) || issue < 1 || !last) return null;
  const isOld = issue < last.issue || last.isOutOfDate;
  if (!isOld) return { isOld, words: `Label ${issue} says what is known.` };
  return {
    isOld,
    words:
      issue < last.issue
        ? `This is label ${issue}: label ${last.issue} was printed since. Take the old one off.`
        : `What this label says has changed since it was printed: print it again.`,
  };
});
/** Its place is kept while the chart is fetched. */
const labelling = ref(false);
function show(recordId: string): void {
  highlighted.value = recordId;
  document.getElementById(`record-${recordId}`)?.scrollIntoView({ block: 'center' });
}
</script>

<template>
  <div class="place">
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <template v-if="data">
        <div class="place-head head">
          <div class="title">
            <h1 :title="numberWords(data.number) ?? undefined">
              {{ data.number }} <span class="sign" :title="sexWords(data.sex)">{{ sexSign(data.sex) }}</span>
              <span v-if="data.name">{{ data.name }}</span>
            </h1>
            <p class="label">{{ data.label }}</p>
            <AlsoCalled :label="data.label" />
            <p v-if="data.isGeneticsPending" class="small soft" role="status">
              What these records say of genes is still being worked out. Until then this is as recorded.
            </p>
          </div>
          <v-btn
            v-if="session.mayBreed"
            :icon="mdiPencilOutline"
            variant="text"
            aria-label="Edit name, parents, status and private note"
            @click="editing = true"
          />
        </div>
        <AnimalFacts :animal="data" />
        <div v-if="session.mayRecord" class="acts">
          <v-btn v-for="act in acts" :key="act.kind" variant="outlined" @click="open(act.kind)">{{
            act.title
          }}</v-btn>
          <v-btn variant="outlined" @click="labelling = true">Label</v-btn>
          <v-btn
            v-if="data.clutch && !data.identified && session.mayBreed"
            variant="outlined"
            :to="`/bench/${data.clutch.id}?one=${data.id}`"
            >On the bench</v-btn
          >
        </div>
        <v-alert
          v-if="scanned"
          :type="scanned.isOld ? 'warning' : 'info'"
          variant="tonal"
          :icon="false"
          class="mb-4"
        >
          {{ scanned.words }}
        </v-alert>
        <v-alert
          v-for="concern in data.care.concerns"
          :key="concern.code"
          type="warning"
          variant="tonal"
          :icon="false"
          class="mb-4"
        >
          <strong>{{ concernWords(concern, reader()).text }}.</strong>
          {{ concernWords(concern, reader()).why }} {{ SEE_A_VET }}
        </v-alert>
        <v-alert
          v-for="conflict in data.conflicts"
          :key="conflict.locus"
          type="error"
          variant="tonal"
          :icon="false"
          class="mb-4"
        >
          <strong>The records disagree.</strong> {{ conflictWords(conflict) }}
          <router-link to="/animals/contradictions">What may have gone wrong</router-link>
        </v-alert>
        <div class="grid">
          <div class="stack">
            <LifelineCard :animal="data" @open="show" />
            <AdviceCard
              :animal="data"
              :may-move="session.mayHouse"
              @move="open('move', { toTubId: $event.tubId, reason: $event.reason })"
            />
            <CareCard :animal="data" :may-record="session.mayRecord" @record="open" />
            <HealthCard :animal="data" :may-record="session.mayRecord" @record="open" />
            <SaleCard v-if="session.maySell" :animal="data" />
            <PublishCard :animal="data" :may-sell="session.maySell" />
          </div>
          <div class="stack">
            <v-card class="box">
              <h2>What it is and carries</h2>
              <ClaimList
                :claims="data.claims"
                :animal-id="data.id"
                :is-identified="data.identified"
                :excluded="data.excluded"
              />
            </v-card>
            <v-card class="box">
              <h2>Parents and theirs</h2>
              <LineageTree v-if="data.parents.length" :parents="data.parents" />
              <p v-else class="soft">No parents recorded: it came in from elsewhere.</p>
              <p class="small">
                <router-link :to="`/animals/${data.id}/kin`">Kin chart, to any depth</router-link>
              </p>
              <p v-if="data.clutch" class="small">
                <router-link :to="`/bench/${data.clutch.id}`">Clutch {{ data.clutch.name }}</router-link
                >, laid {{ dayWords(data.clutch.laidOn) }}, {{ data.clutch.mates }} hatchlings
              </p>
              <template v-if="data.offspring.length">
                <h3>Offspring</h3>
                <p class="offspring small">
                  <router-link
                    v-for="young in data.offspring"
                    :key="young.id"
                    :to="`/animals/${young.id}`"
                    :title="young.label"
                    >{{ young.number }} {{ sexSign(young.sex) }}</router-link
                  >
                </p>
              </template>
            </v-card>
            <OriginCard :animal="data" @record="open" />
            <PictureStrip :animal="data" :may-record="session.mayRecord" />
            <!-- The last: it comes when the projects are known, and moves nothing. -->
            <ProjectsCard :animal="data" />
          </div>
        </div>
        <RecordList
          id="record"
          :animal="data"
          :highlighted="highlighted"
          class="mt-4"
          @correct="open($event.kind, undefined, $event)"
        />
        <LabelsDialog
          v-if="labelling"
          :hatchlings="[data]"
          :title="`Label of ${data.number}`"
          @close="labelling = false"
        />
        <RecordDialog
          v-if="subject"
          :key="`${subject.kind}${subject.correcting?.id}`"
          :subject="subject"
          @close="subject = null"
        />
        <EditDialog v-if="editing" :animal="data" @close="editing = false" />
      </template>
    </StateBlock>
  </div>
</template>

<style scoped>
/* The pencil stays beside the name, however long the label is. */
.head {
  flex-wrap: nowrap;
}
.title {
  flex: 1;
  min-width: 0;
}
.sign {
  margin-right: 0.25em;
  color: rgb(var(--v-theme-secondary));
}
.label {
  font-size: 1.1rem;
  font-weight: 560;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 16px;
}
.acts :deep(.v-btn) {
  min-height: 44px;
}
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1.65fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
.grid :deep(.box),
.box {
  display: grid;
  gap: 12px;
  align-content: start;
  padding: 16px;
}
/* The chart with its legend. */
.offspring {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}
@media (width < 900px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
