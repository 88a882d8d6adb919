<script setup lang="ts">
import type { ShowcaseLine } from '@karyotome/contract';
import { dayWords } from '../../format/format.ts';

defineProps<{ line: ShowcaseLine; mayIssue: boolean; busy: boolean }>();
defineEmits<{ issue: [] }>();
</script>

<template>
  <div class="state">
    <p v-if="line.statement" class="small soft">
      Statement {{ line.statement.statement }}, signed as of {{ dayWords(line.statement.asOf) }}
    </p>
    <p v-else class="small soft">Not signed yet</p>
    <v-alert v-if="line.changes.length" type="warning" variant="tonal" :icon="false" density="compact">
      <p v-for="change in line.changes" :key="change.locus">
        Signed: {{ change.from ?? 'not claimed' }}. The records now:
        <strong>{{ change.to ?? 'not claimed' }}</strong>.
      </p>
    </v-alert>
    <div v-if="mayIssue && (line.changes.length || !line.statement)" class="row">
      <v-btn color="primary" :loading="busy" @click="$emit('issue')">{{
        line.statement ? `Sign statement ${line.statement.statement + 1}` : 'Sign a statement'
      }}</v-btn>
    </div>
  </div>
</template>

<style scoped>
.state {
  display: grid;
  gap: 8px;
}
</style>
