<script setup lang="ts">
import { claimChanges, type Verification } from '@karyotome/lineage';
import { NOT_CLAIMED } from '@karyotome/words';
import { computed } from 'vue';
import { dayWords } from '../../format/format.ts';

/** Another statement of the same animal that was checked on this page: what is claimed otherwise there. */
const props = defineProps<{ document: Verification; other: Verification }>();
const isNewer = computed(() => props.other.subject.statement > props.document.subject.statement);
const changes = computed(() =>
  isNewer.value
    ? claimChanges(props.document.claims, props.other.claims)
    : claimChanges(props.other.claims, props.document.claims),
);
</script>

<template>
  <v-alert :type="isNewer ? 'warning' : 'info'" variant="tonal" :icon="false">
    <p>
      <strong v-if="isNewer">There is a newer statement: number {{ other.subject.statement }}</strong>
      <template v-else>Checked before: statement {{ other.subject.statement }}</template
      >, as of {{ dayWords(other.subject.asOf) }}.
    </p>
    <p v-for="change in changes" :key="change.locus">
      {{ change.from ?? NOT_CLAIMED }} became <strong>{{ change.to ?? NOT_CLAIMED }}</strong>.
    </p>
    <p v-if="changes.length === 0">Both claim the same.</p>
    <p v-if="other.issuer.id !== document.issuer.id">
      The two are signed by different keys. The package holds what the older key says of the newer one.
    </p>
  </v-alert>
</template>
