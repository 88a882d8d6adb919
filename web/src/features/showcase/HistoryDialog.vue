<script setup lang="ts">
import { HANDOVER_WORDS, personWords, STATUS_EVENT_WORDS } from '@karyotome/words';
import type { StatusEventView } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { dayWords, moneyWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useStatusEvents } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import StateBlock from '../../ui/StateBlock.vue';

/** What happened to an animal's status, the newest first; the last thing can be taken back. */
const props = defineProps<{ animal: { readonly id: string; readonly number: string }; currency: string }>();
const emit = defineEmits<{ close: []; correct: [StatusEventView]; handOver: [] }>();
const notices = useNotices();
const { data, status, error, refetch } = useStatusEvents(() => props.animal.id);
const voiding = useWrite((id: string) => api.voidStatusEvent(id, 'Taken back'));
const isLast = (event: StatusEventView): boolean =>
  data.value?.find(({ voided }) => voided === null)?.id === event.id;
const mayCorrect = (event: StatusEventView): boolean =>
  isLast(event) && (event.kind === 'sold' || event.kind === 'reserved');
function detailsOf({ details, person }: StatusEventView): string {
  const { price, deposit, until, paidOn, handedOverOn, how } = details;
  const currency = details.currency ?? props.currency;
  return [
    person ? personWords(person.name) : null,
    price == null ? null : moneyWords(price, currency),
    deposit == null ? null : `deposit ${moneyWords(deposit, currency)}`,
    until == null ? null : `until ${dayWords(until)}`,
    paidOn == null ? null : `paid ${dayWords(paidOn)}`,
    handedOverOn == null ? null : `handed over ${dayWords(handedOverOn)}`,
    how == null ? null : HANDOVER_WORDS[how],
  ]
    .filter((part) => part !== null)
    .join(', ');
}
async function takeBack(event: StatusEventView): Promise<void> {
  if (await voiding.run(event.id)) notices.say(`${STATUS_EVENT_WORDS[event.kind]}: taken back`);
  else notices.warn(voiding.message.value ?? 'It could not be taken back');
}
</script>

<template>
  <v-dialog :model-value="true" max-width="620" @update:model-value="emit('close')">
    <v-card :title="`${animal.number}: what happened`">
      <v-card-text>
        <StateBlock
          :status="status"
          :error="error"
          :is-empty="data?.length === 0"
          empty-title="Nothing is recorded"
          empty-text="Its status was set when it was entered."
          @retry="refetch()"
        >
          <ol class="events">
            <li v-for="event in data" :key="event.id" :class="{ voided: event.voided }">
              <p>
                <strong>{{ STATUS_EVENT_WORDS[event.kind] }}</strong> {{ dayWords(event.on) }}
                <span v-if="event.voided" class="small">taken back</span>
              </p>
              <p v-if="detailsOf(event)" class="small">{{ detailsOf(event) }}</p>
              <p v-if="event.note" class="small">{{ event.note }}</p>
              <p class="small soft">{{ event.author ? `by ${event.author}` : 'by itself' }}</p>
              <div v-if="!event.voided" class="row">
                <v-btn
                  v-if="event.kind === 'sold'"
                  size="small"
                  variant="outlined"
                  :href="api.receiptUrl(event.id)"
                  download
                  >Receipt</v-btn
                >
                <v-btn
                  v-if="mayCorrect(event)"
                  size="small"
                  variant="outlined"
                  @click="emit('correct', event)"
                  >Complete or correct</v-btn
                >
                <v-btn
                  v-if="isLast(event)"
                  size="small"
                  variant="text"
                  :loading="voiding.busy.value"
                  @click="takeBack(event)"
                  >Take back</v-btn
                >
              </div>
            </li>
          </ol>
        </StateBlock>
      </v-card-text>
      <v-card-actions>
        <v-menu>
          <template #activator="{ props: activator }">
            <v-btn v-bind="activator">Care sheet…</v-btn>
          </template>
          <v-list>
            <v-list-item title="As kept" :href="api.careSheetUrl(animal.id, false)" download />
            <v-list-item title="With its health records" :href="api.careSheetUrl(animal.id, true)" download />
          </v-list>
        </v-menu>
        <v-btn @click="emit('handOver')">Hand over…</v-btn>
        <v-spacer />
        <v-btn @click="emit('close')">Close</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.events {
  display: grid;
  gap: 14px;
  padding: 0;
  list-style: none;
}
.voided {
  color: var(--soft);
  text-decoration: line-through;
}
</style>
