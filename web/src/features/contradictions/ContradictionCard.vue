<script setup lang="ts">
import type { ContradictionView } from '@karyotome/contract';
import { conflictWords, explanationWords, supportWords } from '@karyotome/words';
import { api } from '../../api/resources.ts';
import { dayWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import OddsBar from '../../ui/OddsBar.vue';
import { useStateAnew } from './useStateAnew.ts';

type Explanation = ContradictionView['explanations'][number];

/** One set of records that clash, what may have gone wrong with how likely it is, and a way out for each. */
defineProps<{ contradiction: ContradictionView; mayBreed: boolean }>();
const notices = useNotices();
const { stateAnew, busy } = useStateAnew();
const withdrawal = useWrite((recordId: string) => api.voidRecord(recordId, 'Contradicted by its relatives'));

async function withdraw({ recordId, animals }: Explanation): Promise<void> {
  if (!(await withdrawal.run(recordId!))) {
    notices.warn(withdrawal.message.value ?? 'It could not be withdrawn');
    return;
  }
  notices.say(
    `The identification of ${animals[0]!.number} is withdrawn. It stays in the record, struck out.`,
  );
}
</script>

<template>
  <v-card class="card">
    <h2>{{ conflictWords(contradiction) }}</h2>
    <ul class="records small">
      <li v-for="record in contradiction.records" :key="record.recordId">
        <router-link :to="`/animals/${record.animalId}#record-${record.recordId}`">{{
          record.animalNumber
        }}</router-link>
        {{ supportWords(record) }}, {{ dayWords(record.on) }}
      </li>
    </ul>
    <h3>What may have gone wrong, the likeliest first</h3>
    <ol class="explanations">
      <li v-for="(one, n) in contradiction.explanations" :key="n">
        <OddsBar :p="one.share" />
        <span class="words">{{ explanationWords(one, reader()) }}</span>
        <span class="acts">
          <template v-if="one.kind === 'identification'">
            <v-btn :to="`/animals/${one.animals[0]!.id}`" variant="outlined">Recheck</v-btn>
            <v-btn
              v-if="mayBreed && one.recordId"
              variant="outlined"
              :loading="withdrawal.busy.value"
              @click="withdraw(one)"
              >Withdraw</v-btn
            >
          </template>
          <v-btn
            v-else-if="one.kind === 'carries-more' && mayBreed"
            variant="outlined"
            :loading="busy"
            @click="stateAnew(one.animals[0]!, one.genes!)"
            >State “{{ one.genes }}”</v-btn
          >
          <v-btn v-else-if="one.clutchId" variant="outlined" :to="`/bench/${one.clutchId}`"
            >Open the clutch</v-btn
          >
          <v-btn v-else variant="outlined" :to="`/animals/${one.animals[0]!.id}`">Open</v-btn>
        </span>
      </li>
    </ol>
    <p v-if="contradiction.explanations.length === 0" class="soft small">
      No single slip explains it: look at the animals named above one after the other.
    </p>
  </v-card>
</template>

<style scoped>
.card {
  display: grid;
  gap: 12px;
  padding: 16px;
}
h2 {
  max-width: 75ch;
}
.records {
  display: grid;
  gap: 4px;
  padding: 0;
  list-style: none;
}
.explanations {
  display: grid;
  margin: 0;
  padding: 0;
  list-style: none;
}
.explanations li {
  display: grid;
  grid-template-columns: 96px 110px minmax(0, 1fr) auto;
  align-items: center;
  gap: 12px;
  min-height: 48px;
  padding: 4px 0;
}
.explanations li + li {
  border-top: 1px solid var(--hair);
}
.acts :deep(.v-btn) {
  max-width: 100%;
  height: auto;
  min-height: 40px;
  white-space: normal;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 4px;
}
@media (width < 700px) {
  .explanations li {
    grid-template-columns: 96px minmax(0, 1fr);
  }
  .words,
  .acts {
    grid-column: 1 / -1;
  }
  .acts {
    justify-content: flex-start;
  }
}
</style>
