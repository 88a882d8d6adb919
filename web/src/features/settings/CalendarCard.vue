<script setup lang="ts">
import type { FeedView } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCalendarFeeds } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Secret addresses under which a calendar reads what is due. */
const { data } = useCalendarFeeds();
const notices = useNotices();
const name = ref('');
const adding = useWrite(api.addCalendarFeed);
const revoking = useWrite(api.revokeCalendarFeed);
const addressOf = ({ path }: FeedView): string => `${window.location.origin}${path}`;
async function add(): Promise<void> {
  if (!(await adding.run(name.value.trim()))) return;
  name.value = '';
  notices.say('The calendar address is made');
}
async function copy(feed: FeedView): Promise<void> {
  try {
    await navigator.clipboard.writeText(addressOf(feed));
    notices.say('The address is copied');
  } catch {
    notices.warn('It could not be copied: mark it and copy it by hand');
  }
}
async function revoke(feed: FeedView): Promise<void> {
  if (await revoking.run(feed.id)) notices.say(`${feed.name}: revoked, its address answers nobody now`);
  else notices.warn(revoking.message.value ?? 'It could not be revoked');
}
</script>

<template>
  <section class="calendar">
    <h2>Calendar</h2>
    <p class="small soft">
      Everything due, from egg checks to days of pip, in the calendar of your phone or desk: subscribe to the
      address. Whoever has it can read it, so make one for each device, and revoke the one you lost.
    </p>
    <v-card v-for="feed in data ?? []" :key="feed.id" class="feed">
      <div class="row">
        <strong>{{ feed.name }}</strong>
        <span class="small soft">since {{ momentDay(feed.createdAt) }}</span>
        <v-spacer />
        <v-btn variant="outlined" @click="copy(feed)">Copy</v-btn>
        <v-btn variant="text" :aria-label="`Revoke ${feed.name}`" @click="revoke(feed)">Revoke</v-btn>
      </div>
      <code class="small address">{{ addressOf(feed) }}</code>
    </v-card>
    <form class="new" novalidate @submit.prevent="add">
      <v-text-field
        v-model="name"
        label="For which device or person"
        :error-messages="adding.errorsOf('name')"
      />
      <v-btn type="submit" variant="outlined" size="large" :loading="adding.busy.value"
        >Make an address</v-btn
      >
    </form>
  </section>
</template>

<style scoped>
.calendar {
  display: grid;
  gap: 12px;
  max-width: 620px;
  margin-top: 32px;
}
.feed {
  display: grid;
  gap: 6px;
  padding: 12px 16px;
}
.address {
  overflow-wrap: anywhere;
}
.new {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: start;
  gap: 8px;
}
</style>
