<script setup lang="ts">
import type { ClaimView } from '@karyotome/contract';
import { CLAIM_RULES, strengtheningWords, supportWords } from '@karyotome/words';
import { useQuery } from '@pinia/colada';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords, oddsWords } from '../../format/format.ts';

/** Behind a claim: its rule, the records it rests on, what it depends on, and what would change it. */
const props = defineProps<{ claim: ClaimView; animalId: string }>();
const { data: detail, status } = useQuery({
  key: () => ['claimDetail', props.animalId, props.claim.locus, props.claim.allele],
  query: () => api.claimDetail(props.animalId, props.claim.locus, props.claim.allele),
});
const isHinge = (recordId: string): boolean => detail.value?.hinges.includes(recordId) ?? false;
/** What the claim depends on comes first; a long list opens on demand. */
const SHORT = 5;
const isWhole = ref(false);
const ordered = computed(() =>
  (props.claim.support ?? []).toSorted((a, b) => Number(isHinge(b.recordId)) - Number(isHinge(a.recordId))),
);
const listed = computed(() => (isWhole.value ? ordered.value : ordered.value.slice(0, SHORT)));
const hidden = computed(() => ordered.value.length - listed.value.length);
/** The newest record it rests on. */
const asOf = computed(
  () =>
    (props.claim.support ?? [])
      .map((support) => support.on)
      .toSorted()
      .at(-1) ?? null,
);
const eggs = (n: number): string => (n < 10 ? n.toFixed(1) : String(Math.round(n)));
</script>

<template>
  <p>{{ CLAIM_RULES[claim.rule] }}</p>
  <p v-if="detail?.fromPedigree" class="small">
    From its ancestors and its own look alone: <strong>{{ detail.fromPedigree }}</strong>. After all that is
    recorded: <strong>{{ oddsWords(claim.p) }}</strong>.
  </p>
  <section>
    <h4>Rests on</h4>
    <p v-if="claim.support === null" class="small soft">
      The records of more relatives than can be listed here.
    </p>
    <ul v-else class="list small">
      <li v-for="support in listed" :key="support.recordId">
        <router-link :to="`/animals/${support.animalId}#record-${support.recordId}`">{{
          support.animalNumber
        }}</router-link>
        <span>
          {{ supportWords(support) }}, {{ dayWords(support.on) }}
          <strong v-if="isHinge(support.recordId)" class="hinge">without it the claim falls</strong>
        </span>
      </li>
    </ul>
    <p v-if="claim.support !== null" class="small soft">
      None of these records can be left out. Correcting one changes the claim.
      <template v-if="asOf">As of {{ dayWords(asOf) }}, the newest of them.</template>
    </p>
    <v-btn v-if="hidden > 0" size="small" variant="text" @click="isWhole = true">And {{ hidden }} more</v-btn>
  </section>
  <!-- Above what is still being worked out: a link must not move while somebody touches it. -->
  <p class="small">
    <router-link
      :to="{ path: `/animals/${animalId}/kin`, query: { locus: claim.locus, allele: claim.allele } }"
      >Follow it through the kin chart</router-link
    >
  </p>
  <p v-if="status === 'pending'" class="small soft" role="status">Working out what would change it</p>
  <section v-if="detail && detail.strengthen.length > 0">
    <h4>Would make it surer</h4>
    <ul class="list small">
      <li v-for="one in detail.strengthen" :key="one.kind + one.animalId">
        <router-link :to="`/animals/${one.animalId}`">Open</router-link>
        <span
          >{{ strengtheningWords(one)
          }}<template v-if="one.p !== null"
            >: then <strong>{{ oddsWords(one.p) }}</strong></template
          ></span
        >
      </li>
    </ul>
  </section>
  <section v-if="detail && detail.proofs.length > 0">
    <h4>Breeding would settle it</h4>
    <table class="proofs small">
      <thead>
        <tr>
          <th scope="col">With</th>
          <th scope="col" class="num">Eggs to check</th>
          <th scope="col" class="num">A no after</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="proof in detail.proofs" :key="proof.animalId">
          <td>
            <router-link :to="`/animals/${proof.animalId}`">{{ proof.number }}</router-link>
            <span class="soft genes">{{ proof.label }}</span>
          </td>
          <td class="num">{{ eggs(proof.eggs) }} expected</td>
          <td class="num">{{ proof.eggsForNo }} without it</td>
        </tr>
      </tbody>
    </table>
    <p class="small soft">Settled: a young one shows the gene, or the odds fall below 1%.</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 4px;
}
h4 {
  margin: 0;
  font-size: 0.875rem;
}
.list {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.list li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 10px;
}
.hinge {
  display: block;
  color: rgb(var(--v-theme-secondary));
}
.proofs {
  width: 100%;
  border-collapse: collapse;
}
.proofs th {
  font-weight: 560;
  text-align: left;
}
.proofs th.num {
  text-align: right;
}
.proofs td,
.proofs th {
  padding: 3px 0 3px 8px;
  vertical-align: top;
}
.proofs td:first-child,
.proofs th:first-child {
  padding-left: 0;
}
.genes {
  display: block;
}
</style>
