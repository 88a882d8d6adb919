<script setup lang="ts">
import type { SurpriseView } from '@karyotome/contract';
import { oddsWords, oneIn } from '@karyotome/words';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/farm-day.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** A gene that an animal came in with though nobody said so, with its odds, and the way to state it. */
const props = defineProps<{ surprise: SurpriseView; mayRecord: boolean }>();
const session = useSession();
const notices = useNotices();
const state = useWrite(api.addRecord);
const undoing = useWrite((recordId: string) => api.voidRecord(recordId, 'Undone'));
/** Surer than this it need not be asked again. */
const SURE = 0.99;

async function stateIt(): Promise<void> {
  const { animal, genes } = props.surprise;
  const done = await state.run(animal.id, {
    kind: 'identification',
    on: farmToday(),
    body: { genes, sure: 'certain', by: session.name },
  });
  if (done)
    notices.say(
      `${animal.number} stated anew: ${genes}`,
      async () => void (await undoing.run(done.value.id)),
    );
  else notices.warn(state.message.value ?? 'It could not be recorded');
}
</script>

<template>
  <v-card class="card">
    <h2>
      <router-link :to="`/animals/${surprise.animal.id}`">{{ surprise.animal.number }}</router-link>
      {{ surprise.p >= SURE ? 'must carry' : 'may carry' }} {{ surprise.alleles.join(' or ') }}, though nobody
      said so
    </h2>
    <p class="small">
      {{ oneIn(surprise.pBefore) }} beforehand, {{ oddsWords(surprise.p) }} by its young now. It was stated as
      {{ surprise.stated }}.
    </p>
    <v-btn
      v-if="mayRecord && surprise.p >= SURE"
      variant="outlined"
      size="small"
      :loading="state.busy.value"
      @click="stateIt"
      >State it as {{ surprise.genes }}</v-btn
    >
  </v-card>
</template>

<style scoped>
.card {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding: 16px;
}
</style>
