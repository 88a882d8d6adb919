<script setup lang="ts">
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { countWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import RefusalAlert from '../../ui/RefusalAlert.vue';

/** What can be taken out, for keeping and for other programs. */
const session = useSession();
const notices = useNotices();
const input = ref<HTMLInputElement | null>(null);
const importing = useWrite(api.importAll);
async function take(event: Event): Promise<void> {
  const [file] = (event.target as HTMLInputElement).files ?? [];
  if (!file) return;
  const taken = await importing.run(file);
  if (input.value) input.value.value = '';
  if (!taken) return;
  const { name, rows, files } = taken.value;
  await session.refresh();
  notices.say(
    `${name} is here, with ${countWords(rows, 'row', 'rows')} and ${countWords(files, 'file', 'files')}: go to it under Your account`,
  );
}
</script>

<template>
  <section class="export">
    <h2>Export</h2>
    <template v-if="session.mayManage">
      <div class="row">
        <v-btn variant="outlined" :href="api.exportUrl()" download>Download everything</v-btn>
        <v-btn variant="outlined" :loading="importing.busy.value" @click="input?.click()"
          >Take in a collection</v-btn
        >
        <input
          ref="input"
          type="file"
          accept=".zip,application/zip"
          hidden
          aria-label="Archive of a collection"
          @change="take"
        />
      </div>
      <RefusalAlert :text="importing.message.value" />
      <p class="small soft">
        One archive of this collection: all tables as CSV with a description that programs read, pictures,
        labels, cards and statements. Nobody can sign in with what is in it. Another installation takes it in
        again.
      </p>
    </template>
    <div class="row">
      <v-btn variant="outlined" :href="api.exportWeightsUrl()" download>Weights (CSV)</v-btn>
      <v-btn variant="outlined" :href="api.exportMealsUrl()" download>Meals (CSV)</v-btn>
      <v-btn variant="outlined" :href="api.exportReadingsUrl()" download>Readings (CSV)</v-btn>
      <v-btn variant="outlined" :href="api.exportPedigreeUrl()" download="pedigree.json"
        >Pedigree (JSON)</v-btn
      >
      <v-btn variant="outlined" :href="api.exportPlinkUrl()" download>Pedigree (PLINK)</v-btn>
    </div>
    <p class="small soft">
      For spreadsheets and statistics: one row for each weight or meal, in grams, or reading of an incubator
      or a room, in degrees Celsius. The pedigree comes with the genes: as karyotome-pedigree/1 with what was
      recorded, or as .ped, .map and .fam with what is certain.
    </p>
  </section>
</template>

<style scoped>
.export {
  display: grid;
  gap: 8px;
  max-width: 620px;
  margin-top: 32px;
}
.row {
  flex-wrap: wrap;
}
</style>
