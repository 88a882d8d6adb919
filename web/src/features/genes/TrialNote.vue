<script setup lang="ts">
import type { CatalogueEntryInput, TrialView } from '@karyotome/contract';
import type { ShortClaim } from '@karyotome/core';
import { oddsWords } from '@karyotome/words';
import { watchDebounced } from '@vueuse/core';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { ProblemError } from '../../api/client.ts';

/** What an entry of the catalogue would change, before it is saved. */
const props = defineProps<{ entry: CatalogueEntryInput | null }>();
const trial = ref<TrialView | null>(null);
const isAsking = ref(false);
/** Answers that come late are dropped. */
let asked = 0;

/** A possible carrier's label gives its odds itself: "66% het Clown". */
const claimList = (claims: readonly ShortClaim[]): string =>
  claims
    .map(({ kind, label, p }) =>
      p > 0.995 || kind === 'possible-carrier' ? label : `${label} (${oddsWords(p)})`,
    )
    .join(', ') || 'nothing';

watchDebounced(
  () => JSON.stringify(props.entry),
  async () => {
    const turn = ++asked;
    trial.value = null;
    if (!props.entry) return;
    isAsking.value = true;
    try {
      const answer = await api.tryCatalogueEntry(props.entry);
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
  <section v-if="entry" class="wide trial" aria-live="polite">
    <v-progress-linear v-if="isAsking" indeterminate aria-label="Trying it on the records" />
    <template v-else-if="trial">
      <p v-if="trial.contradictions.length > 0" class="caution">
        The records would contradict one another at {{ trial.contradictions.join(', ') }}.
      </p>
      <p v-if="trial.changed === 0" class="small">Nothing that is claimed of an animal today would change.</p>
      <template v-else>
        <p class="small">
          Something else would be claimed of {{ trial.changed }}
          {{ trial.changed === 1 ? 'animal' : 'animals'
          }}{{ trial.changed > trial.animals.length ? `, of which these are ${trial.animals.length}` : '' }}:
        </p>
        <ul class="small">
          <li v-for="one in trial.animals" :key="one.id">
            <strong>{{ one.number }}</strong> {{ claimList(one.before) }} →
            {{ claimList(one.after) }}
          </li>
        </ul>
      </template>
    </template>
  </section>
</template>

<style scoped>
.trial {
  display: grid;
  gap: 6px;
}
.trial ul {
  max-height: 160px;
  padding-left: 18px;
  overflow-y: auto;
}
.caution {
  padding-left: 10px;
  border-left: 3px solid rgb(var(--v-theme-error));
}
</style>
