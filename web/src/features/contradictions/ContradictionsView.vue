<script setup lang="ts">
import { useContradictions, useSurprises } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import ContradictionCard from './ContradictionCard.vue';
import SurpriseCard from './SurpriseCard.vue';

const { data, status, error, refetch } = useContradictions();
const { data: surprises } = useSurprises();
const session = useSession();
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Contradictions</h1>
      <router-link to="/animals" class="small">All animals</router-link>
    </div>
    <p class="soft intro">
      Records that cannot all be true. Until one is mended, nothing is claimed of the gene in question; the
      ranking weighs what may have gone wrong by how well it fits everything else that was recorded.
    </p>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="The records agree"
      empty-text="When an identification does not fit its parents or its young, it appears here with what may have gone wrong."
      @retry="refetch()"
    >
      <template #first><v-btn to="/animals">To the animals</v-btn></template>
      <div class="stack">
        <ContradictionCard
          v-for="one in data"
          :key="one.locus + one.animals.map((animal) => animal.id).join()"
          :contradiction="one"
          :may-record="session.mayRecord"
        />
      </div>
    </StateBlock>
    <section v-if="surprises && surprises.length > 0" class="stack surprises">
      <h2>Genes that nobody stated</h2>
      <SurpriseCard v-for="one in surprises" :key="one.id" :surprise="one" :may-record="session.mayRecord" />
    </section>
  </div>
</template>

<style scoped>
.surprises {
  margin-top: 24px;
}
.intro {
  max-width: 70ch;
  margin-bottom: 16px;
}
</style>
