<script setup lang="ts">
import { mdiQrcodeScan } from '@mdi/js';
import { computed, defineAsyncComponent, ref } from 'vue';
import { fetchStatements } from '../../api/client.ts';
import FileDrop from '../../ui/FileDrop.vue';
import { documentsOf, useVerify } from '../../workers/useVerify.ts';
import VerifiedDocument from './VerifiedDocument.vue';
import { problemWords } from './problem-words.ts';
import { scannedCode, type ScannedCode } from './scanned-code.ts';

const ScanDialog = defineAsyncComponent(() => import('../../ui/ScanDialog.vue'));

/** Anybody checks here what a breeder signed: in the browser, without a server and without a connection. */
const { answer, fileName, isRunning, known, verify } = useVerify();
const documents = computed(() => documentsOf(answer.value));
const refused = computed(() => (answer.value && 'refused' in answer.value ? answer.value.refused : null));
const outside = computed(() => (answer.value && 'documents' in answer.value ? answer.value.problems : []));

const isScanning = ref(false);
const expectedKey = ref<string | null>(null);
/** A code that leads to another site, or whose statement could not be fetched. */
const scanned = ref<ScannedCode>(null);
const isUnreachable = ref(false);
const read = (text: string): ScannedCode => scannedCode(text, location.origin);
async function found(text: string): Promise<void> {
  isScanning.value = false;
  isUnreachable.value = false;
  const code = read(text);
  scanned.value = code;
  if (code?.is === 'key') expectedKey.value = code.did;
  if (code?.is !== 'statement' || !code.isHere) return;
  const files = await fetchStatements(code.slug, code.statement);
  isUnreachable.value = files === null;
  // The newest comes first, so that the one that was scanned is compared with it.
  for (const file of files ?? []) await verify(file);
}
</script>

<template>
  <article class="place page">
    <div class="place-head"><h1>Verify a statement</h1></div>
    <p>
      A breeder’s signed statement, or the package that came with an animal, is checked here in your browser:
      the signature, every claim anew from the records in it, and every file. Nothing is sent anywhere.
    </p>
    <FileDrop
      label="Statement (.json) or package (.zip)"
      accept=".json,.zip,application/json,application/zip"
      :loading="isRunning"
      @file="verify"
    >
      <div class="row">
        <p class="small soft or">Or drop the file here.</p>
        <v-btn variant="outlined" :prepend-icon="mdiQrcodeScan" @click="isScanning = true">Scan a code</v-btn>
      </div>
    </FileDrop>
    <v-alert v-if="expectedKey" type="info" variant="tonal" :icon="false">
      <p>
        The key that you scanned: <span class="key">{{ expectedKey }}</span>
      </p>
      <p v-if="documents.length === 0">Choose a statement: it is held against this key.</p>
    </v-alert>
    <v-alert v-if="scanned?.is === 'hand-over'" type="info" variant="tonal" :icon="false">
      This code is of a hand-over: <a :href="scanned.url">fetch the package</a>, which can be done once, and
      choose it here.
    </v-alert>
    <v-alert
      v-else-if="scanned?.is === 'statement' && isUnreachable"
      type="error"
      variant="tonal"
      :icon="false"
    >
      The statement at {{ scanned.url }} could not be fetched. Choose its file instead.
    </v-alert>
    <v-alert
      v-else-if="scanned?.is === 'statement' && !scanned.isHere"
      type="info"
      variant="tonal"
      :icon="false"
    >
      This statement lies at another site. <a :href="scanned.url">Open its page</a>, download it there, and
      choose it here: nothing of another site is fetched by this page.
    </v-alert>
    <div aria-live="polite" class="stack">
      <p v-if="isRunning" class="soft">Checking {{ fileName }}</p>
      <v-alert v-if="refused" type="error" variant="tonal" :icon="false" role="alert">
        {{ fileName }} is no statement that can be read. {{ refused.path }}: {{ refused.message }}.
      </v-alert>
      <VerifiedDocument
        v-for="(document, index) in documents"
        :key="index"
        :document="document"
        :known="known"
        :expected-key="expectedKey"
      />
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
    <ScanDialog
      v-if="isScanning"
      title="Scan a code"
      carrier="the code of a statement or a key"
      otherwise="choose the statement’s file"
      :accepts="(text: string) => read(text) !== null"
      @found="found"
      @close="isScanning = false"
    />
  </article>
</template>

<style scoped>
.page {
  display: grid;
  gap: 18px;
  max-width: 820px;
}
.or {
  margin-right: auto;
}
.key {
  overflow-wrap: anywhere;
}
.proves {
  padding-left: 20px;
}
section {
  display: grid;
  gap: 8px;
}
</style>
