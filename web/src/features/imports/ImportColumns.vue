<script setup lang="ts">
import {
  DATE_ORDERS,
  DECIMAL_MARKS,
  FILE_MASS_UNITS,
  importFields,
  type CellType,
  type ImportPlan,
  type ImportView,
} from '@karyotome/contract';
import {
  capital,
  DATE_ORDER_WORDS,
  DECIMAL_MARK_WORDS,
  FILE_MASS_UNIT_WORDS,
  importFieldWords,
} from '@karyotome/words';
import { computed } from 'vue';
import { dayWords } from '../../format/format.ts';
import { valueChoices } from './import-choices.ts';

/** What each column means, and how days and numbers are written. */
const props = defineProps<{ view: ImportView }>();
const emit = defineEmits<{ change: [Partial<ImportPlan>] }>();
const fields = computed(() => importFields(props.view.plan.kind));
const items = computed(() =>
  Object.entries(fields.value).map(([value, { isRequired }]) => ({
    value,
    title: capital(importFieldWords(value)) + (isRequired ? ', needed' : ''),
  })),
);
/** A field stands for one column: chosen for another, it leaves the one before. */
function setColumn(index: number, field: string | null): void {
  const { columns, fixed } = props.view.plan;
  emit('change', {
    columns: columns.map((one, i) => (i === index ? field : one === field ? null : one)),
    fixed: fixed.filter((one) => one.field !== field),
  });
}
const isUsed = (...types: readonly CellType[]): boolean =>
  props.view.plan.columns.some((field) => field !== null && types.includes(fields.value[field]!.type));

/** Needed fields of a few words that no column holds: the same in every row. */
const fixable = computed(() =>
  Object.entries(fields.value).flatMap(([field, { type, isRequired, values }]) =>
    isRequired && type === 'word' && !props.view.plan.columns.includes(field)
      ? [
          {
            field,
            value: props.view.plan.fixed.find((one) => one.field === field)?.value ?? null,
            choices: valueChoices(field, values),
          },
        ]
      : [],
  ),
);
const unmatched = computed(() =>
  props.view.missing.filter((field) => !fixable.value.some((one) => one.field === field)),
);
function setFixed(field: string, value: string | null): void {
  const others = props.view.plan.fixed.filter((one) => one.field !== field);
  emit('change', { fixed: value === null ? others : [...others, { field, value }] });
}
const choicesOf = <T extends string>(values: readonly T[], words: Readonly<Record<T, string>>) =>
  values.map((value) => ({ value, title: capital(words[value]) }));
const dateHint = computed(() => {
  const { dates } = props.view;
  if (!dates) return '';
  return `“${dates.text}” is read as ${dayWords(dates.day)}${dates.isSure ? '' : '. It could be read otherwise: is this right?'}`;
});
</script>

<template>
  <v-card class="box">
    <h2>What the columns mean</h2>
    <v-table density="compact">
      <thead>
        <tr>
          <th>Column</th>
          <th class="wide">First values</th>
          <th>Means</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(column, i) in view.columns" :key="i" :class="{ left: view.plan.columns[i] === null }">
          <td>{{ column.title || `Column ${i + 1}` }}</td>
          <td class="small soft wide">{{ column.examples.join(' · ') }}</td>
          <td>
            <v-select
              :items="items"
              :model-value="view.plan.columns[i]"
              :aria-label="`What ${column.title || `column ${i + 1}`} means`"
              placeholder="Left out"
              density="compact"
              hide-details
              clearable
              @update:model-value="setColumn(i, $event ?? null)"
            />
          </td>
        </tr>
      </tbody>
    </v-table>
    <v-alert v-if="unmatched.length" type="warning" variant="tonal" :icon="false" role="status">
      No column holds: {{ unmatched.map(importFieldWords).join(', ') }}. Choose above which it is.
    </v-alert>
    <div class="styles">
      <v-select
        v-for="one in fixable"
        :key="one.field"
        :label="`${capital(importFieldWords(one.field))}, in every row`"
        :items="one.choices"
        :model-value="one.value"
        :error-messages="one.value === null ? ['is in no column: choose one for all rows'] : []"
        @update:model-value="setFixed(one.field, $event)"
      />
      <v-select
        v-if="isUsed('day')"
        label="Days are written"
        :items="choicesOf(DATE_ORDERS, DATE_ORDER_WORDS)"
        :model-value="view.plan.dates"
        :hint="dateHint"
        persistent-hint
        :color="view.dates?.isSure === false ? 'warning' : undefined"
        @update:model-value="emit('change', { dates: $event })"
      />
      <v-select
        v-if="isUsed('mass', 'celsius')"
        label="Numbers are written"
        :items="choicesOf(DECIMAL_MARKS, DECIMAL_MARK_WORDS)"
        :model-value="view.plan.decimals"
        @update:model-value="emit('change', { decimals: $event })"
      />
      <v-select
        v-if="isUsed('mass')"
        label="Weights are in"
        :items="choicesOf(FILE_MASS_UNITS, FILE_MASS_UNIT_WORDS)"
        :model-value="view.plan.masses"
        hint="Where a cell names its unit, that counts"
        persistent-hint
        @update:model-value="emit('change', { masses: $event })"
      />
    </div>
  </v-card>
</template>

<style scoped>
.box {
  display: grid;
  gap: 12px;
  padding: 18px;
}
.left td {
  color: rgba(var(--v-theme-on-surface), 0.62);
}
td:last-child {
  min-width: 220px;
  padding-block: 4px;
}
.styles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  align-items: start;
  gap: 12px;
}
.left :deep(input::placeholder) {
  opacity: 0.75;
}
@media (width < 700px) {
  .wide {
    display: none;
  }
  td:last-child {
    min-width: 0;
  }
}
</style>
