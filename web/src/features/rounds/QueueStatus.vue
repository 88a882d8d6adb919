<script setup lang="ts">
import { recordWords } from '@karyotome/words';
import { mdiCheckCircleOutline, mdiCloudOffOutline, mdiProgressUpload } from '@mdi/js';
import { computed, ref } from 'vue';
import { farmClock } from '../../format/farm-day.ts';
import { reader } from '../../format/reader.ts';
import type { QueuedEntry } from '../../offline/queued-entry.ts';
import { useRoundQueue } from '../../offline/useRoundQueue.ts';

/** What is on its way, what was refused, and what somebody else logged too. Nothing goes away without being seen. */
const queue = useRoundQueue();
const isOpen = ref(false);
const count = computed(() => queue.refused.length + queue.asked.length);
const words = computed(() => {
  const waiting = queue.waiting.length;
  if (waiting === 0) return 'All kept';
  return queue.isOffline ? `No connection, ${waiting} waiting` : `${waiting} on the way`;
});
const icon = computed(() =>
  queue.waiting.length === 0
    ? mdiCheckCircleOutline
    : queue.isOffline
      ? mdiCloudOffOutline
      : mdiProgressUpload,
);
function why(entry: QueuedEntry): string {
  const { result } = entry;
  if (result?.status !== 'refused') return '';
  const { detail, errors, title } = result.problem;
  return errors.length > 0 ? errors.map(({ message }) => message).join('. ') : (detail ?? title);
}
const others = (entry: QueuedEntry) => (entry.result?.status === 'kept' ? entry.result.alike : []);
</script>

<template>
  <div class="status">
    <span class="small" role="status" aria-label="Entries"
      ><v-icon :icon="icon" size="20" /> {{ words }}</span
    >
    <v-btn v-if="queue.waiting.length > 0" size="small" variant="text" @click="queue.flush()">Send now</v-btn>
    <v-btn v-if="count > 0" size="small" variant="flat" color="secondary" @click="isOpen = true"
      >{{ count }} to review</v-btn
    >
    <v-dialog v-model="isOpen" max-width="560">
      <v-card title="To review">
        <v-card-text class="stack">
          <p v-if="count === 0" class="soft">Nothing any more.</p>
          <section v-for="entry in queue.refused" :key="entry.key">
            <p>
              <strong>{{ entry.number }}: {{ entry.text }}</strong> was refused. {{ why(entry) }}
            </p>
            <div class="row">
              <v-btn size="small" variant="outlined" :to="`/animals/${entry.animalId}`">Its page</v-btn>
              <v-btn size="small" variant="outlined" @click="queue.sendAgain(entry)">Send again</v-btn>
              <v-btn size="small" variant="text" @click="queue.settleAsked(entry)">Dismiss</v-btn>
            </div>
          </section>
          <section v-for="entry in queue.asked" :key="entry.key">
            <p>
              <strong>{{ entry.number }}: {{ entry.text }}</strong> was kept, but there is also:
            </p>
            <p v-for="other in others(entry)" :key="other.id" class="small">
              {{ recordWords(other.record, reader()) }}, by {{ other.author }},
              {{ reader().timeOfDay(farmClock(other.at)) }}
            </p>
            <div class="row">
              <v-btn size="small" variant="outlined" @click="queue.settleAsked(entry)">Both are true</v-btn>
              <v-btn size="small" variant="text" @click="queue.takeMineBack(entry)">Take mine back</v-btn>
            </div>
          </section>
        </v-card-text>
        <v-card-actions><v-btn @click="isOpen = false">Close</v-btn></v-card-actions>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.status {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
</style>
