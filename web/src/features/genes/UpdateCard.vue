<script setup lang="ts">
import type { CatalogueView } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCatalogueUpdate } from '../../stores/queries.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import { useWrite } from '../../stores/useWrite.ts';
import TrialResult from './TrialResult.vue';

/** An update of the built-in catalogue that changes what animals are said to carry: what it changes, and taking it. */
const { update, mayBreed } = defineProps<{
  update: NonNullable<CatalogueView['update']>;
  mayBreed: boolean;
}>();
const catalogue = useCatalogue();
const notices = useNotices();
const { data: trial, status, error, refetch } = useCatalogueUpdate();
const taking = useWrite(api.takeCatalogueUpdate);
const loci = computed(() => update.loci.map((id) => catalogue.value.locusById(id)?.name ?? id).join(', '));

async function take(): Promise<void> {
  if (await taking.run(update.version)) notices.say(`Catalogue ${update.version} counts from now on.`);
  else notices.warn(taking.message.value ?? 'The update could not be taken');
}
</script>

<template>
  <v-card class="update">
    <h2>Catalogue {{ update.version }} changes how {{ loci }} is read</h2>
    <p class="small soft">
      Until you take it, this collection goes on with the catalogue as it was. Entries of your own stay as
      they are.
    </p>
    <v-progress-linear v-if="status === 'pending'" indeterminate aria-label="Trying it on the records" />
    <TrialResult v-else-if="trial" :trial="trial" />
    <p v-else class="small" role="alert">
      {{ error?.message ?? 'What it would change could not be found out.' }}
      <v-btn size="small" variant="text" @click="refetch()">Try again</v-btn>
    </p>
    <v-btn
      v-if="mayBreed"
      color="primary"
      class="take"
      :disabled="!trial"
      :loading="taking.busy.value"
      @click="take()"
      >Use catalogue {{ update.version }}</v-btn
    >
  </v-card>
</template>

<style scoped>
.update {
  display: grid;
  gap: 8px;
  margin-bottom: 16px;
  padding: 16px;
}
.take {
  justify-self: start;
}
</style>
