<script setup lang="ts">
import { fingerprintWords, type Verification } from '@karyotome/lineage';
import { computed } from 'vue';
import { dayWords, oddsWords } from '../../format/format.ts';
import OtherStatement from './OtherStatement.vue';
import { problemWords } from './problem-words.ts';

const {
  document,
  known = [],
  expectedKey = null,
} = defineProps<{
  document: Verification;
  /** Whose signature held, of the files that were checked on this page. */
  known?: readonly Verification[];
  /** The key that was scanned; null where none was. */
  expectedKey?: string | null;
}>();
/** The newest other statement of the same animal. */
const other = computed(() =>
  known
    .filter(
      ({ subject }) => subject.id === document.subject.id && subject.statement !== document.subject.statement,
    )
    .reduce<Verification | null>(
      (newest, one) => (newest && newest.subject.statement >= one.subject.statement ? newest : one),
      null,
    ),
);
/** To be compared by word of mouth. */
const words = computed(() => (fingerprintWords(document.issuer.id) ?? []).join(' '));

const SIGNATURES: Readonly<Record<Verification['signature'], string>> = {
  valid: 'The signature is valid',
  invalid: 'The signature is not valid',
  missing: 'There is no signature',
};
</script>

<template>
  <v-card class="box">
    <v-alert :type="document.valid ? 'success' : 'error'" variant="tonal" :icon="false">
      <strong>{{ document.valid ? 'Everything holds' : 'This does not hold' }}</strong>
    </v-alert>
    <OtherStatement v-if="other" :document="document" :other="other" />
    <v-alert
      v-if="expectedKey"
      :type="expectedKey === document.issuer.id ? 'success' : 'error'"
      variant="tonal"
      :icon="false"
    >
      {{
        expectedKey === document.issuer.id
          ? 'It is signed by the key that you scanned.'
          : 'It is signed by another key than the one that you scanned.'
      }}
    </v-alert>
    <h2>{{ document.subject.number }}</h2>
    <dl class="facts">
      <div>
        <dt>Issued by</dt>
        <dd>{{ document.issuer.name }}</dd>
      </div>
      <div>
        <dt>Statement</dt>
        <dd>{{ document.subject.statement }}, as of {{ dayWords(document.subject.asOf) }}</dd>
      </div>
      <div>
        <dt>Signature</dt>
        <dd>{{ SIGNATURES[document.signature] }}</dd>
      </div>
      <div class="wide">
        <dt>Key</dt>
        <dd class="key">
          {{ document.issuer.id }}<br />
          Fingerprint: <strong>{{ words }}</strong>
        </dd>
      </div>
    </dl>
    <v-table v-if="document.claims.length" density="compact">
      <thead>
        <tr>
          <th>Claim</th>
          <th class="num">Stated</th>
          <th class="num">Derived here</th>
          <th>Result</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(claim, index) in document.claims" :key="index">
          <td>{{ claim.words }}</td>
          <td class="num">{{ oddsWords(claim.p) }}</td>
          <td class="num">{{ claim.derived === null ? 'not at all' : oddsWords(claim.derived) }}</td>
          <td>
            <strong v-if="!claim.follows" class="bad">does not follow</strong
            ><template v-else>follows</template>
          </td>
        </tr>
      </tbody>
    </v-table>
    <p v-else>No gene but wild type is claimed.</p>
    <section v-if="document.problems.length">
      <h3>What does not hold</h3>
      <ul>
        <li v-for="(problem, index) in document.problems" :key="index">{{ problemWords(problem) }}</li>
      </ul>
    </section>
    <details v-if="document.files.length">
      <summary>{{ document.files.length }} files</summary>
      <ul class="small">
        <li v-for="file in document.files" :key="file.file">
          {{ file.file }}: {{ file.intact ? 'intact' : 'not intact' }}
        </li>
      </ul>
    </details>
  </v-card>
</template>

<style scoped>
.box {
  display: grid;
  gap: 14px;
  padding: 18px;
}
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 10px 20px;
}
.wide {
  grid-column: 1 / -1;
}
dt {
  font-size: 0.85rem;
  color: var(--soft);
}
dd {
  margin: 0;
}
.key {
  overflow-wrap: anywhere;
  font-size: 0.85rem;
}
.bad {
  color: rgb(var(--v-theme-error));
}
ul {
  padding-left: 20px;
}
</style>
