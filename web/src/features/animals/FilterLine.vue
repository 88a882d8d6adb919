<script setup lang="ts">
import type { AnimalFilterView } from '@karyotome/contract';
import { filterWords } from '@karyotome/words';
import { computed, ref } from 'vue';
import { reader } from '../../format/reader.ts';
import { useSession } from '../../stores/session.ts';
import KeepListDialog from './KeepListDialog.vue';

/** How what was typed is read, what of it was not understood, and that it can be kept as a list. */
const props = defineProps<{ filter: AnimalFilterView; text: string }>();
const session = useSession();
const keeping = ref(false);
const clauses = computed(() => filterWords(props.filter, reader()));
/** One part alone is a word to look for; of several, a part that was not understood is told. */
const unread = computed(() =>
  props.filter.clauses.length + props.filter.unread.length > 1 ? props.filter.unread : [],
);
</script>

<template>
  <div v-if="filter.isFilter || unread.length > 0" class="row line" role="status">
    <template v-if="filter.isFilter">
      <span class="small soft">Read as</span>
      <v-chip v-for="clause in clauses" :key="clause" size="small" label>{{ clause }}</v-chip>
      <v-btn v-if="session.mayRecord" size="small" variant="text" @click="keeping = true"
        >Keep as a list…</v-btn
      >
    </template>
    <span v-else class="small error">
      Not understood: {{ unread.map((part) => `“${part}”`).join(', ') }}. What was typed is looked for as
      words.
    </span>
    <KeepListDialog v-if="keeping" :words="text" @close="keeping = false" />
  </div>
</template>

<style scoped>
.line {
  gap: 8px;
  margin-bottom: 12px;
}
.error {
  color: rgb(var(--v-theme-error));
}
</style>
