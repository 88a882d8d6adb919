<script setup lang="ts">
import type { HealthCaseView } from '@karyotome/contract';
import { QUARANTINE_PRACTICE, placeWords, SIGNS_FOR_VET } from '@karyotome/words';
import { computed, ref } from 'vue';
import { countWords, dayWords, sexSign } from '../../format/format.ts';
import { useHealthCases, useMiteWatches } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import RecordDialog from '../records/RecordDialog.vue';
import type { RecordSubject } from '../records/useRecordForm.ts';
import TodayNav from '../today/TodayNav.vue';
import HealthEntries from './HealthEntries.vue';
import MiteCheckDialog from './MiteCheckDialog.vue';

/** Who needs care for their health, and which racks are watched for mites. */
const session = useSession();
const { data, status, error, refetch } = useHealthCases();
const { data: watches } = useMiteWatches();
const subject = ref<RecordSubject | null>(null);
const mites = ref<string | null>(null);
const GROUPS = [
  { title: 'Signs', isIn: ({ health }: HealthCaseView) => health.openSigns !== null },
  { title: 'Under treatment', isIn: ({ health }: HealthCaseView) => health.courses.length > 0 },
  { title: 'In quarantine', isIn: ({ health }: HealthCaseView) => health.quarantine !== null },
  { title: 'To be seen by a veterinarian', isIn: () => true },
] as const;
/** Each animal once, under the first heading that it comes under. */
const groups = computed(() => {
  let left = data.value ?? [];
  return GROUPS.map(({ title, isIn }) => {
    const cases = left.filter(isIn);
    left = left.filter((one) => !cases.includes(one));
    return { title, cases };
  }).filter(({ cases }) => cases.length > 0);
});
const open = (
  { id, number }: HealthCaseView['animal'],
  kind: RecordSubject['kind'],
  begin?: RecordSubject['begin'],
) => {
  subject.value = { animalId: id, number, kind, ...(begin ? { begin } : {}) };
};
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Health</h1>
      <TodayNav />
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0 && watches?.length === 0"
      empty-title="No animal needs care for its health"
      empty-text="Signs, treatments, quarantine and visits to a veterinarian are recorded on an animal’s page. Until they are over the animal stands here."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/animals">Choose an animal</v-btn></template>
      <div class="stack">
        <p class="small soft">{{ SIGNS_FOR_VET }}</p>
        <v-card v-if="watches?.length" class="box">
          <h2>Racks watched for mites</h2>
          <div v-for="watch in watches" :key="watch.id" class="watch">
            <strong>{{ watch.name }}</strong>
            <span
              >{{ watch.toCheck.length }} of {{ countWords(watch.of, 'animal', 'animals') }} to look through
              <span class="small soft"
                >last seen {{ dayWords(watch.lastSeenOn) }}, watched until {{ dayWords(watch.until) }}</span
              ></span
            >
            <v-btn
              v-if="session.mayRecord && watch.toCheck.length > 0"
              variant="outlined"
              @click="mites = watch.id"
              >Look through…</v-btn
            >
          </div>
        </v-card>
        <v-card v-for="{ title, cases } in groups" :key="title" class="box">
          <h2>
            {{ title }} <span class="small soft">{{ cases.length }}</span>
          </h2>
          <p v-if="title === 'In quarantine'" class="small soft">{{ QUARANTINE_PRACTICE }}</p>
          <div v-for="{ id, animal, health } in cases" :key="id" class="case">
            <div>
              <router-link :to="`/animals/${id}`" class="who"
                >{{ animal.number }} {{ sexSign(animal.sex) }}</router-link
              >
              <p class="small soft">{{ animal.label }}</p>
              <p class="small soft">{{ animal.tub ? placeWords(animal.tub) : 'without a tub' }}</p>
            </div>
            <div class="entries">
              <HealthEntries
                :animal="animal"
                :health="health"
                :may-record="session.mayRecord"
                @record="(kind, begin) => open(animal, kind, begin)"
              />
            </div>
          </div>
        </v-card>
      </div>
    </StateBlock>
    <MiteCheckDialog v-if="mites" :rack-id="mites" @close="mites = null" />
    <RecordDialog v-if="subject" :subject="subject" @close="subject = null" />
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 12px;
  padding: 16px;
}
.watch {
  display: grid;
  grid-template-columns: minmax(120px, 240px) 1fr auto;
  align-items: center;
  gap: 4px 16px;
}
.case {
  display: grid;
  grid-template-columns: minmax(120px, 240px) 1fr;
  gap: 4px 16px;
  padding-top: 12px;
  border-top: 1px solid var(--hair);
}
.who {
  font-weight: 640;
}
.entries {
  display: grid;
  gap: 12px;
}
@media (width < 600px) {
  .watch,
  .case {
    grid-template-columns: 1fr;
  }
}
</style>
