<script setup lang="ts">
import type { ImportSummary } from '@karyotome/contract';
import { IMPORT_KIND_WORDS } from '@karyotome/words';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { countWords, momentWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useImports } from '../../stores/queries.ts';
import { useLongWork } from '../../stores/useLongWork.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FileDrop from '../../ui/FileDrop.vue';
import LineCard from '../../ui/LineCard.vue';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import WorkProgress from '../../ui/WorkProgress.vue';

/** Spreadsheets: one that comes in, and those that came. */
const router = useRouter();
const notices = useNotices();
const { data: imports } = useImports();
const work = useLongWork();
const adding = useWrite((file: File) => work.run((job) => api.addImport(file, job)));
const undoing = useWrite(api.undoImport);
const discarding = useWrite(api.discardImport);

const EXAMPLE =
  'number,name,sex,hatched,genes,dam,sire,weight,status\nF-01,Juniper,female,2022-07-14,"Cinnamon YB 66% het Clown",,,1720,breeder\nM-01,,male,2023-08-02,"Pastel Clown",,,810,breeder\n';
const exampleUrl = `data:text/csv;charset=utf-8,${encodeURIComponent(EXAMPLE)}`;

async function add(file: File): Promise<void> {
  const added = await adding.run(file);
  if (added) await router.push(`/animals/import/${added.value.id}`);
}
const STATES: Readonly<Record<ImportSummary['state'], string>> = {
  draft: 'not brought in yet',
  done: 'brought in',
  undone: 'taken back',
};
const aboutOf = ({ kind, state, by, at, rows }: ImportSummary): string =>
  [
    IMPORT_KIND_WORDS[kind],
    rows === null ? STATES[state] : `${countWords(rows, 'row', 'rows')} ${STATES[state]}`,
    `${by}, ${momentWords(at)}`,
  ].join(' · ');

async function undo({ id, fileName }: ImportSummary): Promise<void> {
  if (await undoing.run(id)) notices.say(`${fileName} is taken back: nothing of it is left`);
  else notices.warn(undoing.message.value ?? 'It could not be taken back');
}
async function discard({ id, fileName }: ImportSummary): Promise<void> {
  if (await discarding.run(id)) notices.say(`${fileName} discarded`);
  else notices.warn(discarding.message.value ?? 'It could not be discarded');
}
</script>

<template>
  <div class="place page">
    <div class="place-head">
      <h1>Bring in a spreadsheet</h1>
      <v-btn variant="text" to="/animals">Animals</v-btn>
    </div>
    <p>
      Animals, their parents, weights, meals, sheds or clutches, one in a row, saved as CSV. What the columns
      mean is proposed, and yours to correct; nothing is brought in until you confirm, and a file can be taken
      back as a whole. <a :href="exampleUrl" download="example.csv">An example file</a>
    </p>
    <FileDrop
      label="CSV file, up to 50,000 rows"
      accept=".csv,.tsv,.txt,text/csv"
      :loading="adding.busy.value"
      @file="add"
    >
      <WorkProgress v-if="work.isRunning.value" :progress="work.progress.value" @cancel="work.cancel()" />
    </FileDrop>
    <RefusalAlert :text="adding.general([])" />
    <section v-if="imports?.length" class="earlier">
      <h2>Files</h2>
      <LineCard v-for="one in imports" :key="one.id" :title="one.fileName" :about="aboutOf(one)">
        <div v-if="one.state === 'draft'" class="row">
          <v-btn variant="text" @click="discard(one)">Discard</v-btn>
          <v-btn variant="outlined" :to="`/animals/import/${one.id}`">Go on</v-btn>
        </div>
        <v-btn
          v-else-if="one.state === 'done'"
          variant="outlined"
          :loading="undoing.busy.value"
          :aria-label="`Take ${one.fileName} back`"
          @click="undo(one)"
          >Take back</v-btn
        >
      </LineCard>
    </section>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 16px;
  max-width: 860px;
}
.earlier {
  display: grid;
  gap: 8px;
  margin-top: 16px;
}
</style>
