<script setup lang="ts">
import { computed } from 'vue';
import { lookAgainWords } from '@karyotome/words';
import { reader } from '../../format/reader.ts';
import { useContradictions, useDoubtful, useSurprises, useSuspects } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import ContradictionCard from './ContradictionCard.vue';
import RecordsToCheck from './RecordsToCheck.vue';
import SurpriseCard from './SurpriseCard.vue';

const { data, status, error, refetch } = useContradictions();
const { data: surprises } = useSurprises();
const { data: suspects } = useSuspects();
const { data: doubtful } = useDoubtful();
const enough = computed(() => (suspects.value ?? []).filter(({ isEnough }) => isEnough).length);
/** One contradiction by one record is told on its own card. */
const isListed = computed(() => enough.value > 0 && enough.value + (data.value?.length ?? 0) > 2);
const session = useSession();
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Contradictions</h1>
      <router-link to="/animals" class="small">All animals</router-link>
      <TableLink v-if="data?.length" list="contradictions" />
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
        <v-card v-if="isListed" class="check">
          <h2>Look at these again</h2>
          <p class="soft">{{ lookAgainWords(enough, data!.length, reader()) }}</p>
          <RecordsToCheck :records="suspects!" />
        </v-card>
        <ContradictionCard
          v-for="one in data"
          :key="one.locus + one.animals.map((animal) => animal.id).join()"
          :contradiction="one"
          :may-breed="session.mayBreed"
        />
      </div>
    </StateBlock>
    <section v-if="doubtful && doubtful.length > 0" class="stack surprises">
      <h2>Doubtful records</h2>
      <v-card class="check">
        <p class="soft">
          Nothing contradicts these, but they are more likely wrong than right: by their relatives, and by how
          often such identifications proved right.
        </p>
        <RecordsToCheck :records="doubtful" />
      </v-card>
    </section>
    <section v-if="surprises && surprises.length > 0" class="stack surprises">
      <h2>Genes that nobody stated</h2>
      <SurpriseCard v-for="one in surprises" :key="one.id" :surprise="one" :may-breed="session.mayBreed" />
    </section>
  </div>
</template>

<style scoped>
.check {
  display: grid;
  gap: 12px;
  padding: 16px;
}
.surprises {
  margin-top: 24px;
}
.intro {
  max-width: 70ch;
  margin-bottom: 16px;
}
</style>
