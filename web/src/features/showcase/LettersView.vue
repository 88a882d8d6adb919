<script setup lang="ts">
import { SENDABLE, type LetterState, type LetterView } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useLetters, usePost } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import ReceivedLetter from './ReceivedLetter.vue';
import ShowcaseNav from './ShowcaseNav.vue';

/** Letters to people: looked at, sent, and what became of each. */
const { data, status, error, refetch } = useLetters();
const { data: post } = usePost();
const notices = useNotices();
const sending = useWrite((ids: string[]) => api.sendLetters({ ids }));
const discarding = useWrite(api.discardLetter);
const reading = ref<LetterView | null>(null);
const STATES: Readonly<Record<LetterState, string>> = {
  draft: 'not sent yet',
  waiting: 'on its way',
  sending: 'being sent',
  sent: 'sent',
  failed: 'could not be sent',
  unknown: 'may have been sent: the server ended meanwhile',
  discarded: 'discarded',
};
const drafts = computed(() => (data.value ?? []).filter(({ state }) => state === 'draft'));
async function send(letters: readonly LetterView[]): Promise<void> {
  if (await sending.run(letters.map(({ id }) => id)))
    notices.say(letters.length === 1 ? 'On its way' : `${letters.length} letters on their way`);
  else notices.warn(sending.message.value ?? 'It could not be sent');
}
async function discard(id: string): Promise<void> {
  if (await discarding.run(id)) notices.say('Discarded');
  else notices.warn(discarding.message.value ?? 'It could not be discarded');
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Letters</h1>
      <ShowcaseNav />
      <TableLink list="letters" />
      <v-btn v-if="drafts.length > 1" color="primary" :loading="sending.busy.value" @click="send(drafts)"
        >Send all {{ drafts.length }}</v-btn
      >
    </div>
    <v-alert v-if="post?.isSimulated" type="info" variant="tonal" :icon="false" class="mb-4">
      No mail server is configured, so letters go to a simulated post office on this server and are read here.
      Nobody outside gets them.
    </v-alert>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No letters yet"
      empty-text="When what you claimed of a sold animal changes, or an animal fits somebody who waits, a letter is drafted here. Nothing is sent before you looked at it, and nothing to anybody who has not agreed."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/showcase">To what is published</v-btn></template>
      <div class="stack">
        <v-card
          v-for="letter in data"
          :key="letter.id"
          class="box"
          :class="{ done: letter.state === 'discarded' }"
        >
          <div class="row">
            <h2>{{ letter.subject || 'Erased with its person' }}</h2>
            <v-spacer />
            <span class="small">{{ STATES[letter.state] }}, {{ momentWords(letter.stateAt) }}</span>
          </div>
          <p class="small soft">
            To {{ letter.person?.name ?? '' }} {{ letter.to ?? 'nobody any more'
            }}<template v-if="letter.animal"
              >, about
              <router-link :to="`/animals/${letter.animal.id}`">{{
                letter.animal.number
              }}</router-link></template
            >
          </p>
          <div class="text">
            <p v-for="(paragraph, index) in letter.paragraphs" :key="index">{{ paragraph }}</p>
          </div>
          <v-alert v-if="letter.error" type="error" variant="tonal" density="compact" :icon="false"
            >The mail server answered: {{ letter.error }}</v-alert
          >
          <div class="row">
            <v-btn
              v-if="SENDABLE.includes(letter.state) && letter.to"
              color="primary"
              :loading="sending.busy.value"
              @click="send([letter])"
              >{{ letter.state === 'draft' ? 'Send' : 'Send again' }}</v-btn
            >
            <v-btn v-if="SENDABLE.includes(letter.state)" variant="text" @click="discard(letter.id)"
              >Discard</v-btn
            >
            <v-btn
              v-if="post?.isSimulated && letter.state === 'sent'"
              variant="outlined"
              @click="reading = letter"
              >As it arrived (simulated)</v-btn
            >
          </div>
        </v-card>
      </div>
    </StateBlock>
    <ReceivedLetter v-if="reading" :letter="reading" @close="reading = null" />
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 8px;
  padding: 16px;
}
.text {
  display: grid;
  gap: 6px;
  padding: 10px 14px;
  border-left: 3px solid var(--hair);
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.done {
  opacity: 0.65;
}
</style>
