<script setup lang="ts">
import type { DoubtfulRecordView, SuspectView } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { supportWords } from '@karyotome/words';
import { dayWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import OddsBar from '../../ui/OddsBar.vue';

/** Records that may be wrong, each with its odds and, where known, how much looking again would settle. */
const { records } = defineProps<{ records: readonly (DoubtfulRecordView | SuspectView)[] }>();
const FIRST = 8;
const isWhole = ref(false);
const shown = computed(() => (isWhole.value ? records : records.slice(0, FIRST)));
const settles = (one: DoubtfulRecordView | SuspectView): string | null =>
  'settles' in one && one.settles >= 0.005 ? reader().percent(one.settles) : null;
</script>

<template>
  <ul class="records">
    <li v-for="one in shown" :key="one.id">
      <OddsBar :p="one.pWrong" />
      <span class="words">
        <router-link :to="`/animals/${one.record.animalId}#record-${one.record.recordId}`">{{
          one.record.animalNumber
        }}</router-link>
        wrong at {{ one.locusName }}
        <span class="soft small">{{ supportWords(one.record) }}, {{ dayWords(one.record.on) }}</span>
      </span>
      <span class="telling small">
        <template v-if="settles(one)">settles {{ settles(one) }} of the doubt</template>
      </span>
    </li>
  </ul>
  <v-btn v-if="records.length > FIRST && !isWhole" variant="text" @click="isWhole = true"
    >Show all {{ records.length }}</v-btn
  >
</template>

<style scoped>
.records {
  display: grid;
  margin: 0;
  padding: 0;
  list-style: none;
}
.records li {
  display: grid;
  grid-template-columns: 96px 110px minmax(0, 1fr) auto;
  align-items: center;
  gap: 12px;
  min-height: 48px;
  padding: 4px 0;
}
.records li + li {
  border-top: 1px solid var(--hair);
}
.words .small {
  display: block;
}
@media (width < 700px) {
  .records li {
    grid-template-columns: 96px minmax(0, 1fr);
  }
  .words,
  .telling {
    grid-column: 1 / -1;
  }
}
</style>
