<script setup lang="ts">
import { useDropZone } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import { useVerify } from '../../workers/useVerify.ts';
import VerifiedDocument from './VerifiedDocument.vue';
import { problemWords } from './problem-words.ts';

/** Anybody checks here what a breeder signed: in the browser, without a server and without a connection. */
const { answer, fileName, isRunning, verify } = useVerify();
const zone = useTemplateRef<HTMLElement>('zone');
const { isOverDropZone } = useDropZone(zone, {
  onDrop: (files) => {
    if (files?.[0]) void verify(files[0]);
  },
});
function choose(chosen: File | File[] | null | undefined): void {
  const [file] = [chosen ?? []].flat();
  if (file) void verify(file);
}
const documents = computed(() => {
  if (!answer.value || 'refused' in answer.value) return [];
  return answer.value.format === 'karyotome-verification/1' ? [answer.value] : answer.value.documents;
});
const refused = computed(() => (answer.value && 'refused' in answer.value ? answer.value.refused : null));
const outside = computed(() => (answer.value && 'documents' in answer.value ? answer.value.problems : []));
</script>

<template>
  <article class="place page">
    <div class="place-head"><h1>Verify a statement</h1></div>
    <p>
      A breeder’s signed statement, or the package that came with an animal, is checked here in your browser:
      the signature, every claim anew from the records in it, and every file. Nothing is sent anywhere.
    </p>
    <div ref="zone" class="zone" :class="{ over: isOverDropZone }">
      <v-file-input
        label="Statement (.json) or package (.zip)"
        accept=".json,.zip,application/json,application/zip"
        variant="outlined"
        hide-details
        :loading="isRunning"
        @update:model-value="choose"
      />
      <p class="small soft">Or drop the file here.</p>
    </div>
    <div aria-live="polite" class="stack">
      <p v-if="isRunning" class="soft">Checking {{ fileName }}</p>
      <v-alert v-if="refused" type="error" variant="tonal" :icon="false" role="alert">
        {{ fileName }} is no statement that can be read. {{ refused.path }}: {{ refused.message }}.
      </v-alert>
      <VerifiedDocument v-for="(document, index) in documents" :key="index" :document="document" />
      <v-alert v-if="outside.length" type="error" variant="tonal" :icon="false">
        <p v-for="(problem, index) in outside" :key="index">{{ problemWords(problem) }}</p>
      </v-alert>
    </div>
    <section>
      <h2>What a signature proves</h2>
      <ul class="proves">
        <li>Whoever holds the breeder’s key said this, as it stands, and when they say they did.</li>
        <li>
          A claim that follows is what Mendel’s rules give for the records in the statement, no more and no
          less.
        </li>
        <li>
          It does not prove that the animals were looked at rightly, or that this is the animal in your hands.
        </li>
        <li>
          It does not prove who the holder of the key is: compare the key with the one on the breeder’s own
          page.
        </li>
      </ul>
    </section>
  </article>
</template>

<style scoped>
.page {
  display: grid;
  gap: 18px;
  max-width: 820px;
}
.zone {
  display: grid;
  gap: 8px;
  padding: 20px;
  border: 2px dashed var(--hair);
  border-radius: 12px;
}
.zone.over {
  border-color: rgb(var(--v-theme-primary));
}
.proves {
  padding-left: 20px;
}
section {
  display: grid;
  gap: 8px;
}
</style>
