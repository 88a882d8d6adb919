<script setup lang="ts">
import type { ImportPreview } from '@karyotome/contract';
import { computed, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useLongWork } from '../../stores/useLongWork.ts';
import { useWrite } from '../../stores/useWrite.ts';
import WorkProgress from '../../ui/WorkProgress.vue';

const router = useRouter();
const notices = useNotices();
const file = shallowRef<File | null>(null);
const preview = ref<ImportPreview | null>(null);
const work = useLongWork();
const reading = useWrite((chosen: File) => work.run((job) => api.previewImport(chosen, job)));
const importing = useWrite((chosen: File) => work.run((job) => api.runImport(chosen, job)));
const onlyBad = ref(false);
const rows = computed(() =>
  (preview.value?.rows ?? []).filter((row) => !onlyBad.value || row.problems.length > 0),
);
const EXAMPLE =
  'number,name,sex,hatched,genes,dam,sire,weight,status\nF-01,Juniper,female,2022-07-14,"Cinnamon YB 66% het Clown",,,1720,breeder\nM-01,,male,2023-08-02,"Pastel Clown",,,810,breeder\n';
const exampleUrl = `data:text/csv;charset=utf-8,${encodeURIComponent(EXAMPLE)}`;

const rowsWords = (count: number): string => (count === 1 ? '1 row is' : `${count} rows are`);

async function choose(chosen: File | File[] | null): Promise<void> {
  file.value = Array.isArray(chosen) ? (chosen[0] ?? null) : chosen;
  preview.value = null;
  importing.reset();
  if (!file.value) return;
  preview.value = (await reading.run(file.value))?.value ?? null;
}
async function confirm(): Promise<void> {
  const done = await importing.run(file.value!);
  if (!done) return;
  notices.say(`${done.value.imported} animals brought in`);
  await router.push('/animals');
}
</script>

<template>
  <div class="place">
    <div class="place-head"><h1>Import animals</h1></div>
    <div class="stack">
      <v-card class="box">
        <p>
          A CSV file in UTF-8 with one animal in a row. Columns: <strong>number</strong> and
          <strong>sex</strong> are needed; name, hatched (YYYY-MM-DD), genes in your shorthand, dam and sire
          by number, weight in grams, status and note may be there. A file has at most 5000 rows and 4 MiB.
          Nothing is brought in until you confirm.
          <a :href="exampleUrl" download="example.csv">An example file</a>
        </p>
        <v-file-input
          label="CSV file"
          accept=".csv,text/csv"
          :loading="reading.busy.value"
          :error-messages="reading.errorsOf('file')"
          @update:model-value="choose"
        />
        <WorkProgress v-if="work.isRunning.value" :progress="work.progress.value" @cancel="work.cancel()" />
        <v-alert v-if="reading.general(['file'])" type="error" variant="tonal" :icon="false" role="alert">{{
          reading.message.value
        }}</v-alert>
      </v-card>
      <template v-if="preview">
        <div class="row">
          <h2>
            {{ rowsWords(preview.good) }} good<template v-if="preview.bad"
              >, {{ preview.bad }} to correct</template
            >
          </h2>
          <v-switch
            v-if="preview.bad"
            v-model="onlyBad"
            label="Only these"
            hide-details
            density="compact"
            color="primary"
          />
          <v-spacer />
          <v-btn
            color="primary"
            size="large"
            :disabled="preview.bad > 0"
            :loading="importing.busy.value"
            @click="confirm"
            >Bring in {{ preview.good }} {{ preview.good === 1 ? 'animal' : 'animals' }}</v-btn
          >
        </div>
        <v-alert v-if="preview.unknownColumns.length" type="info" variant="tonal" :icon="false"
          >Columns left out, since their meaning is not known:
          {{ preview.unknownColumns.join(', ') }}</v-alert
        >
        <v-alert v-if="preview.bad" type="warning" variant="tonal" :icon="false"
          >Correct the file and choose it again. Nothing was brought in.</v-alert
        >
        <v-alert v-if="importing.message.value" type="error" variant="tonal" :icon="false" role="alert">{{
          importing.message.value
        }}</v-alert>
        <v-card>
          <v-table density="compact">
            <thead>
              <tr>
                <th class="num">Line</th>
                <th>Number</th>
                <th>Sex</th>
                <th>Genes, as read</th>
                <th>What is wrong</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows" :key="row.line" :class="{ bad: row.problems.length }">
                <td class="num">{{ row.line }}</td>
                <td>{{ row.number }}</td>
                <td>{{ row.sex }}</td>
                <td>
                  {{ row.problems.some((problem) => problem.field === 'genes') ? row.genes : row.label }}
                </td>
                <td>
                  <div v-for="problem in row.problems" :key="problem.field + problem.message">
                    <strong>{{ problem.field }}</strong> {{ problem.message }}
                  </div>
                </td>
              </tr>
            </tbody>
          </v-table>
        </v-card>
      </template>
    </div>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 16px;
  max-width: 760px;
  padding: 20px;
}
.bad {
  background: color-mix(in srgb, rgb(var(--v-theme-error)) 9%, transparent);
}
</style>
