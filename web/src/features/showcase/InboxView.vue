<script setup lang="ts">
import { api } from '../../api/resources.ts';
import { momentWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useInquiries } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import ShowcaseNav from './ShowcaseNav.vue';

/** What visitors of the public pages asked. */
const { data, status, error, refetch } = useInquiries();
const notices = useNotices();
const answering = useWrite(api.answerInquiry);
const deleting = useWrite(api.deleteInquiry);
async function answered(id: string): Promise<void> {
  if (await answering.run(id)) notices.say('Marked as answered');
  else notices.warn(answering.message.value ?? 'It could not be marked');
}
async function remove(id: string): Promise<void> {
  if (await deleting.run(id)) notices.say('Deleted');
  else notices.warn(deleting.message.value ?? 'It could not be deleted');
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Inbox</h1>
      <ShowcaseNav />
      <TableLink v-if="data?.length" list="inquiries" />
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No questions yet"
      empty-text="What visitors of your public pages ask comes in here. Your address never shows on them."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/showcase">To what is published</v-btn></template>
      <div class="stack">
        <v-card v-for="inquiry in data" :key="inquiry.id" class="box">
          <p>
            <strong>{{ inquiry.name }}</strong>
            <span class="small soft"> {{ momentWords(inquiry.askedAt) }}</span>
            <template v-if="inquiry.animal">
              about
              <router-link :to="`/animals/${inquiry.animal.id}`">{{ inquiry.animal.number }}</router-link>
            </template>
          </p>
          <p class="text">{{ inquiry.text }}</p>
          <div class="row">
            <v-btn
              variant="outlined"
              :href="`mailto:${inquiry.email}?subject=${encodeURIComponent(inquiry.animal?.number ?? 'Your question')}`"
              >Answer {{ inquiry.email }}</v-btn
            >
            <span v-if="inquiry.answeredAt" class="small soft">answered</span>
            <v-btn v-else variant="text" @click="answered(inquiry.id)">Mark as answered</v-btn>
            <v-spacer />
            <v-btn variant="text" color="error" @click="remove(inquiry.id)">Delete</v-btn>
          </div>
        </v-card>
      </div>
    </StateBlock>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.text {
  white-space: pre-line;
}
</style>
