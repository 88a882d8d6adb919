<script setup lang="ts">
import { canonicalLabel, parseGenes, type Catalogue } from '@karyotome/core';
import { computed } from 'vue';

/** Genes in trade shorthand, read while typing: what it was understood as, and what it was not. */
const props = defineProps<{ label?: string; errors?: string[]; hint?: string; catalogue?: Catalogue }>();
const text = defineModel<string | null>({ required: true });
const reading = computed(() => parseGenes(text.value ?? '', props.catalogue));
const understood = computed(() =>
  (text.value ?? '').trim() === '' ? '' : canonicalLabel(reading.value, props.catalogue),
);
const messages = computed(() => (props.errors?.length ? props.errors : []));

function replace(word: string, suggestion: string): void {
  const pattern = new RegExp(word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), 'i');
  text.value = (text.value ?? '').replace(pattern, suggestion);
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
      :error-messages="messages"
    />
    <p v-if="understood && reading.unknown.length === 0" class="small read">
      Read as <strong>{{ understood }}</strong>
    </p>
    <div v-for="unknown in reading.unknown" :key="unknown.word" class="small row read">
      <span
        >“{{ unknown.word }}”
        {{
          unknown.reason === 'ambiguous'
            ? 'can mean'
            : unknown.suggestions.length
              ? 'is not known. Did you mean'
              : unknown.reason === 'dangling'
                ? 'has no gene after it'
                : unknown.reason === 'impossible'
                  ? 'does not fit on one animal'
                  : 'is not known'
        }}</span
      >
      <v-chip
        v-for="suggestion in unknown.suggestions"
        :key="suggestion"
        size="small"
        label
        @click="replace(unknown.word, suggestion)"
      >
        {{ suggestion }}
      </v-chip>
    </div>
  </div>
</template>

<style scoped>
.read {
  margin: 6px 4px 0;
}
</style>
