<script setup lang="ts">
import type { TrialView } from '@karyotome/contract';
import type { ShortClaim } from '@karyotome/core';
import { oddsWords } from '@karyotome/words';

/** What another catalogue would change of what is claimed. */
defineProps<{ trial: TrialView }>();

/** A possible carrier's label gives its odds itself: "66% het Clown". */
const claimList = (claims: readonly ShortClaim[]): string =>
  claims
    .map(({ kind, label, p }) =>
      p > 0.995 || kind === 'possible-carrier' ? label : `${label} (${oddsWords(p)})`,
    )
    .join(', ') || 'nothing';
</script>

<template>
  <div class="trial">
    <p v-if="trial.contradictions.length > 0" class="caution">
      The records would contradict one another at {{ trial.contradictions.join(', ') }}.
    </p>
    <p v-if="trial.changed === 0" class="small">Nothing that is claimed of an animal today would change.</p>
    <template v-else>
      <p class="small">
        Something else would be claimed of {{ trial.changed }} {{ trial.changed === 1 ? 'animal' : 'animals'
        }}{{ trial.changed > trial.animals.length ? `, of which these are ${trial.animals.length}` : '' }}:
      </p>
      <ul class="small">
        <li v-for="one in trial.animals" :key="one.id">
          <strong>{{ one.number }}</strong> {{ claimList(one.before) }} →
          {{ claimList(one.after) }}
        </li>
      </ul>
    </template>
  </div>
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
