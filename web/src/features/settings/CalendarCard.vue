<script setup lang="ts">
import type { FeedView } from '@karyotome/contract';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCalendarFeeds } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import LineCard from '../../ui/LineCard.vue';
import PagePart from '../../ui/PagePart.vue';
import ShownOnce from '../../ui/ShownOnce.vue';

/** Secret addresses under which a calendar reads what is due. */
const { data } = useCalendarFeeds();
const notices = useNotices();
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
  <PagePart title="Calendar">
    <p class="small soft">
      Everything due, from egg checks to days of pip, in the calendar of your phone or desk: subscribe to the
      address. Whoever has it can read it, so make one for each device, and revoke the one you lost.
    </p>
    <LineCard
      v-for="feed in data ?? []"
      :key="feed.id"
      :title="feed.name"
      :about="`since ${momentDay(feed.createdAt)}, by ${feed.by}`"
    >
      <v-btn variant="text" :aria-label="`Revoke ${feed.name}`" @click="revoke(feed)">Revoke</v-btn>
    </LineCard>
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
    <ShownOnce
      v-if="made"
      :secret="made.address"
      :whom="made.name"
      copied="The address is copied"
      @done="made = null"
    >
      Subscribe to this address. It is shown this once: whoever loses it makes another.
    </ShownOnce>
  </PagePart>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: start;
  gap: 8px;
}
</style>
