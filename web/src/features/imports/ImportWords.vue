<script setup lang="ts">
import { importFields, type ImportPlan, type ImportView, type ImportWordUse } from '@karyotome/contract';
import { capital, importFieldWords } from '@karyotome/words';
import { computed, ref } from 'vue';
import { countWords } from '../../format/format.ts';
import { valueChoices } from './import-choices.ts';

/** What words of the file mean: those that nobody has said yet first. */
const props = defineProps<{ view: ImportView }>();
const emit = defineEmits<{ change: [Partial<ImportPlan>] }>();
const NOTHING = '';
const isOpen = ref(false);
const open = computed(() => props.view.words.filter(({ value }) => value === undefined));
/** What was decided here stays to be seen, and to be decided otherwise. */
const isDecidedHere = ({ field, word }: ImportWordUse): boolean =>
  props.view.plan.words.some((one) => one.field === field && one.word === word);
const shown = computed(() =>
  props.view.words.filter((one) => isOpen.value || one.value === undefined || isDecidedHere(one)),
);
function choicesOf(field: string): { value: string; title: string }[] {
  const { values, isRequired } = importFields(props.view.plan.kind)[field]!;
  const choices = valueChoices(field, values);
  return isRequired ? choices : [...choices, { value: NOTHING, title: 'Nothing' }];
}
const chosen = ({ value }: ImportWordUse): string | null => (value === undefined ? null : (value ?? NOTHING));
function say({ field, word }: ImportWordUse, value: string): void {
  const others = props.view.plan.words.filter((one) => one.field !== field || one.word !== word);
  emit('change', { words: [...others, { field, word, value: value === NOTHING ? null : value }] });
}
</script>

<template>
  <v-card v-if="view.words.length" class="box">
    <div class="row">
      <h2>What words mean</h2>
      <v-spacer />
      <v-btn v-if="isOpen || shown.length < view.words.length" variant="text" @click="isOpen = !isOpen">{{
        isOpen ? 'Only those to decide' : `Show all ${view.words.length}`
      }}</v-btn>
    </div>
    <p class="small soft">
      {{
        open.length
          ? 'Said once, it is remembered for the next file.'
          : 'All words of the file are understood.'
      }}
    </p>
    <div class="words">
      <v-select
        v-for="one in shown"
        :key="`${one.field} ${one.word}`"
        :label="`${capital(importFieldWords(one.field))}: “${one.word || 'empty'}”, ${countWords(one.count, 'row', 'rows')}`"
        :items="choicesOf(one.field)"
        :model-value="chosen(one)"
        hide-details
        density="compact"
        @update:model-value="say(one, $event ?? NOTHING)"
      />
    </div>
  </v-card>
</template>

<style scoped>
.box {
  display: grid;
  gap: 8px;
  padding: 18px;
}
.words {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 10px;
}
</style>
