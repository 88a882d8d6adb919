<script setup lang="ts">
import { api } from '../../api/resources.ts';
import { useSession } from '../../stores/session.ts';

/** What can be taken out, for keeping and for other programs. */
const session = useSession();
</script>

<template>
  <section class="export">
    <h2>Export</h2>
    <template v-if="session.mayManage">
      <div class="row">
        <v-btn variant="outlined" :href="api.exportUrl()" download>Download everything</v-btn>
      </div>
      <p class="small soft">
        One archive of this collection: all tables as CSV with a description that programs read, pictures,
        labels, cards and statements. Nobody can sign in with what is in it. Another installation takes it in
        again: <code>npm run import</code>.
      </p>
    </template>
    <div class="row">
      <v-btn variant="outlined" :href="api.exportWeightsUrl()" download>Weights (CSV)</v-btn>
      <v-btn variant="outlined" :href="api.exportMealsUrl()" download>Meals (CSV)</v-btn>
      <v-btn variant="outlined" :href="api.exportPedigreeUrl()" download="pedigree.json"
        >Pedigree (JSON)</v-btn
      >
      <v-btn variant="outlined" :href="api.exportPlinkUrl()" download>Pedigree (PLINK)</v-btn>
    </div>
    <p class="small soft">
      For spreadsheets and statistics: one row for each weight or meal, in grams. The pedigree comes with the
      genes: as karyotome-pedigree/1 with what was recorded, or as .ped, .map and .fam with what is certain.
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
