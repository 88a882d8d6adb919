<script setup lang="ts">
import type { LetterView } from '@karyotome/contract';
import { momentWords } from '../../format/format.ts';
import { useReceivedLetter } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';

/** A letter as it arrived at the simulated post office. */
const props = defineProps<{ letter: LetterView }>();
const emit = defineEmits<{ close: [] }>();
const { data, status, error, refetch } = useReceivedLetter(() => props.letter.id);
</script>

<template>
  <v-dialog :model-value="true" max-width="640" @update:model-value="emit('close')">
    <v-card title="At the simulated post office">
      <v-card-text>
        <StateBlock :status="status" :error="error" @retry="refetch()">
          <template v-if="data">
            <dl>
              <dt class="small soft">From</dt>
              <dd>{{ data.from }}</dd>
              <dt class="small soft">To</dt>
              <dd>{{ data.to }}</dd>
              <dt class="small soft">Subject</dt>
              <dd>{{ data.subject }}</dd>
              <dt class="small soft">Arrived</dt>
              <dd>{{ momentWords(data.receivedAt) }}</dd>
            </dl>
            <p class="text">{{ data.text }}</p>
          </template>
        </StateBlock>
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn @click="emit('close')">Close</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 14px;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.text {
  margin-top: 12px;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
