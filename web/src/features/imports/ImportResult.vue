<script setup lang="ts">
import type { ImportView } from '@karyotome/contract';
import { capital, importCellWords, importFieldWords } from '@karyotome/words';
import { computed } from 'vue';
import { countWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';

/** What would come in, and what is wrong with the rest. */
const props = defineProps<{ view: ImportView }>();
const head = computed(() => {
  const { good, bad, known } = props.view;
  return [
    `${countWords(good, 'row is', 'rows are')} right`,
    ...(bad > 0 ? [`${bad} to correct`] : []),
    ...(known > 0 ? [`${known} say what is recorded already, and are left out`] : []),
  ].join(', ');
});
const columns = computed(() => [
  ...props.view.plan.columns.filter((field) => field !== null),
  ...props.view.plan.fixed.map(({ field }) => field),
]);
/** Problems of one line beside one another. */
const bad = computed(() => {
  const lines = new Map<number, ImportView['problems']>();
  for (const problem of props.view.problems) {
    const known = lines.get(problem.line) ?? [];
    lines.set(problem.line, [...known, problem]);
  }
  return [...lines];
});
</script>

<template>
  <div v-if="view.missing.length === 0" class="result">
    <h2>{{ head }}</h2>
    <v-card v-if="bad.length">
      <v-table density="compact">
        <thead>
          <tr>
            <th class="num">Line</th>
            <th>What is wrong</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[line, problems] in bad" :key="line" class="bad">
            <td class="num">{{ line }}</td>
            <td>
              <div v-for="problem in problems" :key="problem.field + problem.message">
                <strong>{{ capital(importFieldWords(problem.field)) }}</strong>
                <span v-if="problem.cell" class="soft"> “{{ problem.cell }}”</span>
                {{ problem.message }}
              </div>
            </td>
          </tr>
        </tbody>
      </v-table>
      <p v-if="bad.length < view.bad" class="small soft more">
        {{ countWords(view.bad - bad.length, 'more row is', 'more rows are') }} wrong.
      </p>
    </v-card>
    <v-card v-if="view.shown.length">
      <v-table density="compact">
        <thead>
          <tr>
            <th class="num">Line</th>
            <th v-for="field in columns" :key="field">{{ capital(importFieldWords(field)) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in view.shown" :key="row.line">
            <td class="num">{{ row.line }}</td>
            <td v-for="field in columns" :key="field">
              {{ importCellWords(view.plan.kind, field, row.values[field], reader()) }}
            </td>
          </tr>
        </tbody>
      </v-table>
      <p v-if="view.shown.length < view.good" class="small soft more">
        The first {{ view.shown.length }} of {{ view.good }}, as they are read.
      </p>
    </v-card>
  </div>
</template>

<style scoped>
.result {
  display: grid;
  gap: 12px;
}
.num {
  width: 72px;
}
.bad {
  background: color-mix(in srgb, rgb(var(--v-theme-error)) 9%, transparent);
}
.more {
  padding: 8px 16px;
}
</style>
