<script setup lang="ts">
import type { ClaimView } from '@karyotome/contract';
import { isPossible } from '@karyotome/core';
import { oddsWords } from '../../format/format.ts';
import SureText from '../../ui/SureText.vue';
import WhyPanel from '../../ui/WhyPanel.vue';
import ClaimWhy from './ClaimWhy.vue';

/** Each claim with what it rests on. */
defineProps<{
  claims: readonly ClaimView[];
  animalId: string;
  isIdentified: boolean;
  excluded: readonly string[];
}>();
const oddsOf = (claim: ClaimView): string => {
  if (claim.certain) return 'certain, as recorded';
  return isPossible(claim.kind) ? `carried with ${oddsWords(claim.p)}` : oddsWords(claim.p);
};
</script>

<template>
  <p v-if="!isIdentified" class="soft">
    Not identified yet. What its parents can give is known; what it is waits for an eye.
  </p>
  <p v-if="claims.length === 0 && isIdentified" class="soft">No gene but wild type, as recorded.</p>
  <ul class="claims">
    <li v-for="claim in claims" :key="claim.locus + claim.allele">
      <span class="words"
        ><SureText :text="claim.label" :p="claim.p" :fraction="claim.kind === 'possible-carrier'"
      /></span>
      <span class="small soft">{{ oddsOf(claim) }}</span>
      <WhyPanel :title="claim.label">
        <ClaimWhy :claim="claim" :animal-id="animalId" />
      </WhyPanel>
    </li>
  </ul>
  <p v-if="excluded.length" class="small soft">
    Excluded, though a parent may have it: {{ excluded.join(', ') }}.
  </p>
</template>

<style scoped>
.claims {
  list-style: none;
  padding: 0;
}
.claims > li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  align-items: center;
  gap: 8px;
  min-height: 40px;
}
.claims > li + li {
  border-top: 1px solid var(--hair);
}
.words {
  font-weight: 600;
}
</style>
