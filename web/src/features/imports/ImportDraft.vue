<script setup lang="ts">
import { IMPORT_KINDS, type ImportPlan, type ImportView } from '@karyotome/contract';
import { capital, IMPORT_KIND_WORDS } from '@karyotome/words';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { countWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useImport } from '../../stores/queries.ts';
import { useLongWork } from '../../stores/useLongWork.ts';
import { useWrite } from '../../stores/useWrite.ts';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import StateBlock from '../../ui/StateBlock.vue';
import WorkProgress from '../../ui/WorkProgress.vue';
import ImportColumns from './ImportColumns.vue';
import ImportResult from './ImportResult.vue';
import ImportWords from './ImportWords.vue';

/** A spreadsheet before it is brought in: what its columns and words mean, and what is wrong with its rows. */
const route = useRoute();
const router = useRouter();
const notices = useNotices();
const id = computed(() => String(route.params['id']));
const { data, status, error, refetch } = useImport(id);
const view = ref<ImportView | null>(null);
watch(data, (read) => (view.value = read ?? null), { immediate: true });

const work = useLongWork();
const planning = useWrite((plan: ImportPlan) => work.run((job) => api.planImport(id.value, plan, job)));
const running = useWrite(() => work.run((job) => api.runImport(id.value, leaveOutBad.value, job)));
const undoing = useWrite(api.undoImport);
const leaveOutBad = ref(false);
const kinds = IMPORT_KINDS.map((value) => ({ value, title: capital(IMPORT_KIND_WORDS[value]) }));
/** Rows that would come in. */
const coming = computed(() => (view.value ? view.value.good - view.value.known : 0));
const isReady = computed(
  () =>
    view.value !== null &&
    view.value.missing.length === 0 &&
    coming.value > 0 &&
    (view.value.bad === 0 || leaveOutBad.value),
);

async function change(change: Partial<ImportPlan>): Promise<void> {
  running.reset();
  const planned = await planning.run({ ...view.value!.plan, ...change });
  if (planned) view.value = planned.value;
}
async function confirm(): Promise<void> {
  const done = await running.run();
  if (!done) return;
  const { fileName, kind } = view.value!;
  notices.say(
    `${countWords(done.value.rows, 'row', 'rows')} of ${fileName} brought in`,
    async () => void (await undoing.run(id.value)),
  );
  await router.push(kind === 'clutches' ? '/season' : '/animals');
}
</script>

<template>
  <div class="place page">
    <div class="place-head">
      <h1>Bring in {{ view?.fileName }}</h1>
      <v-btn variant="text" to="/animals/import">Files</v-btn>
    </div>
    <StateBlock :status="view ? 'success' : status" :error="error" @retry="refetch()">
      <div v-if="view" class="page">
        <v-select
          class="kind"
          label="What each row is"
          :items="kinds"
          :model-value="view.plan.kind"
          hide-details
          @update:model-value="change({ kind: $event })"
        />
        <ImportColumns :view="view" @change="change" />
        <ImportWords :view="view" @change="change" />
        <WorkProgress v-if="work.isRunning.value" :progress="work.progress.value" @cancel="work.cancel()" />
        <RefusalAlert :text="planning.general([])" />
        <ImportResult :view="view" />
        <RefusalAlert :text="running.message.value" />
        <div class="row ends">
          <v-switch
            v-if="view.bad > 0"
            v-model="leaveOutBad"
            :label="`Leave out ${countWords(view.bad, 'row that is wrong', 'rows that are wrong')}`"
            hide-details
            density="compact"
            color="primary"
          />
          <v-spacer />
          <v-btn
            color="primary"
            size="large"
            :disabled="!isReady || planning.busy.value"
            :loading="running.busy.value"
            @click="confirm"
            >Bring in {{ countWords(coming, 'row', 'rows') }}</v-btn
          >
        </div>
      </div>
    </StateBlock>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 16px;
  max-width: 1080px;
}
.kind {
  max-width: 420px;
}
.ends {
  position: sticky;
  bottom: 0;
  padding: 12px 0;
  background: rgb(var(--v-theme-background));
}
@media (width < 700px) {
  /* The places lie there. */
  .ends {
    position: static;
  }
}
</style>
