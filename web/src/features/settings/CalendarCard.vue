<script setup lang="ts">
import type { FeedView } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCalendarFeeds } from '../../stores/queries.ts';
import { useCopy } from '../../stores/useCopy.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Secret addresses under which a calendar reads what is due. */
const { data } = useCalendarFeeds();
const notices = useNotices();
const copy = useCopy();
const name = ref('');
const adding = useWrite(api.addCalendarFeed);
const revoking = useWrite(api.revokeCalendarFeed);
/** The address that was made just now: it is told this once. */
const made = ref<{ readonly id: string; readonly name: string; readonly address: string } | null>(null);
async function add(): Promise<void> {
  const answer = await adding.run(name.value.trim());
  if (!answer) return;
  made.value = {
    id: answer.value.id,
    name: name.value.trim(),
    address: `${window.location.origin}${answer.value.path}`,
  };
  name.value = '';
}
async function revoke(feed: FeedView): Promise<void> {
  if (await revoking.run(feed.id)) {
    if (made.value?.id === feed.id) made.value = null;
    notices.say(`${feed.name}: revoked, its address answers nobody now`);
  } else notices.warn(revoking.message.value ?? 'It could not be revoked');
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
        <span class="small soft">since {{ momentDay(feed.createdAt) }}, by {{ feed.by }}</span>
        <v-spacer />
        <v-btn variant="text" :aria-label="`Revoke ${feed.name}`" @click="revoke(feed)">Revoke</v-btn>
      </div>
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
    <v-card v-if="made" class="feed">
      <p>
        <strong>For {{ made.name }}.</strong> Subscribe to this address. It is shown this once: whoever loses
        it makes another.
      </p>
      <code class="small address">{{ made.address }}</code>
      <div class="row">
        <v-btn variant="outlined" @click="copy(made.address, 'The address is copied')">Copy</v-btn>
        <v-btn variant="text" @click="made = null">Done</v-btn>
      </div>
    </v-card>
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
