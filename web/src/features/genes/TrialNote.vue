<script setup lang="ts">
import type { CatalogueEntryInput, TrialView } from '@karyotome/contract';
import { watchDebounced } from '@vueuse/core';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { ProblemError } from '../../api/client.ts';
import TrialResult from './TrialResult.vue';

/** What an entry of the catalogue would change, before it is saved. */
const { entry, replaces = null } = defineProps<{
  entry: CatalogueEntryInput | null;
  /** The id of the entry that is edited. */
  replaces?: string | null;
}>();
const trial = ref<TrialView | null>(null);
const isAsking = ref(false);
/** Answers that come late are dropped. */
let asked = 0;

watchDebounced(
  () => JSON.stringify(entry),
  async () => {
    const turn = ++asked;
    trial.value = null;
    if (!entry) return;
    isAsking.value = true;
    try {
      const answer = await api.tryCatalogueEntry(entry, replaces);
      if (turn === asked) trial.value = answer;
    } catch (error) {
      // What is wrong with the entry is said at its fields when it is saved.
      if (!(error instanceof ProblemError)) throw error;
    } finally {
      if (turn === asked) isAsking.value = false;
    }
  },
  { debounce: 400, immediate: true },
);
</script>

<template>
  <section v-if="entry" class="wide" aria-live="polite">
    <v-progress-linear v-if="isAsking" indeterminate aria-label="Trying it on the records" />
    <TrialResult v-else-if="trial" :trial="trial" />
  </section>
</template>
