<script setup lang="ts">
import {
  canonicalLabel,
  combinationLabel,
  parseGenes,
  type Catalogue,
  type UnknownWord,
} from '@karyotome/core';
import { unreadWords } from '@karyotome/words';
import { computed, ref } from 'vue';

/**
 * Genes in trade shorthand, read while typing: what it was understood as, and what it was not, marked in the text. Choices
 * take the place of what they are offered for; one that should hold from now on is handed on by `settle`.
 */
const props = defineProps<{
  label?: string;
  errors?: string[];
  hint?: string;
  catalogue?: Catalogue;
  /** Whether choices may be kept for the collection, and lines added to it. */
  maySettle?: boolean;
}>();
const emit = defineEmits<{
  /** From now on the word stands for these genes. */
  settle: [word: string, genes: string];
  /** A line that the catalogue does not have: a gene of the collection's own. */
  addLine: [name: string];
}>();
const text = defineModel<string | null>({ required: true });
const typed = computed(() => text.value ?? '');
const reading = computed(() => parseGenes(typed.value, props.catalogue));
const understood = computed(() =>
  typed.value.trim() === '' ? '' : canonicalLabel(reading.value, props.catalogue),
);
const named = computed(() => combinationLabel(reading.value, props.catalogue));
/** The text in pieces: what was read, and what was not. */
const pieces = computed(() => {
  const found: { text: string; isUnread: boolean }[] = [];
  let at = 0;
  for (const { start, end } of reading.value.unknown) {
    if (start < at) continue;
    found.push({ text: typed.value.slice(at, start), isUnread: false });
    found.push({ text: typed.value.slice(start, end), isUnread: true });
    at = end;
  }
  return [...found, { text: typed.value.slice(at), isUnread: false }];
});
/** The last choice that could be kept: a word and its genes. */
const chosen = ref<{ word: string; genes: string } | null>(null);

function choose({ start, end, suggestions, settle }: UnknownWord, suggestion: string): void {
  text.value = typed.value.slice(0, start) + suggestion + typed.value.slice(end);
  const genes = settle?.genes[suggestions.indexOf(suggestion)];
  chosen.value = settle && genes ? { word: settle.word, genes } : null;
}
function keep(): void {
  if (chosen.value) emit('settle', chosen.value.word, chosen.value.genes);
  chosen.value = null;
}
</script>

<template>
  <div class="wide">
    <v-text-field
      v-model="text"
      :label="label ?? 'Genes, in your shorthand'"
      :hint="hint ?? 'For example: Cinnamon YB 66% het Clown (OD)'"
      persistent-hint
      maxlength="300"
      :error-messages="errors ?? []"
    />
    <p v-if="understood && reading.unknown.length === 0" class="small read">
      Read as <strong>{{ understood }}</strong><template v-if="named && named !== understood"
        >, also called {{ named }}</template
      >
    </p>
    <template v-if="reading.unknown.length > 0">
      <p class="small read" aria-label="What was read">
        <template v-for="(piece, at) in pieces" :key="at"
          ><mark v-if="piece.isUnread">{{ piece.text }}</mark
          ><template v-else>{{ piece.text }}</template></template
        >
      </p>
      <div v-for="unknown in reading.unknown" :key="`${unknown.start} ${unknown.reason}`" class="small read">
        {{ unreadWords(unknown, true) }}{{ unknown.suggestions.length > 0 ? '. Did you mean' : '' }}
        <div class="row">
          <v-chip
            v-for="suggestion in unknown.suggestions"
            :key="suggestion"
            label
            @click="choose(unknown, suggestion)"
          >
            {{ suggestion }}
          </v-chip>
          <v-chip
            v-if="maySettle && unknown.reason === 'unknown-line' && unknown.settle"
            label
            variant="outlined"
            @click="emit('addLine', unknown.settle.word)"
          >
            Add {{ unknown.settle.word }} as a line of your own
          </v-chip>
        </div>
      </div>
    </template>
    <p v-if="maySettle && chosen" class="small read">
      <v-btn size="small" variant="tonal" @click="keep"
        >Always read “{{ chosen.word }}” as {{ chosen.genes }}</v-btn
      >
    </p>
  </div>
</template>

<style scoped>
.read {
  margin: 6px 4px 0;
}
mark {
  padding: 0 2px;
  border-radius: 3px;
  color: inherit;
  background: rgb(var(--v-theme-warning) / 28%);
  text-decoration: underline wavy rgb(var(--v-theme-warning));
}
</style>
