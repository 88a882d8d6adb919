<script setup lang="ts">
import { WEBHOOK_EVENTS, type WebhookEvent, type WebhookView } from '@karyotome/contract';
import { capital, WEBHOOK_EVENT_WORDS } from '@karyotome/words';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { countWords, momentWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWebhooks } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import CheckList from '../../ui/CheckList.vue';
import LineCard from '../../ui/LineCard.vue';
import PagePart from '../../ui/PagePart.vue';
import ShownOnce from '../../ui/ShownOnce.vue';
import TableLink from '../../ui/TableLink.vue';

/** Programs that are told of changes at an address of theirs. */
const { data, refetch } = useWebhooks();
const notices = useNotices();
const adding = useWrite(api.addWebhook);
const testing = useWrite(api.testWebhook);
const removing = useWrite(api.removeWebhook);
const address = ref('');
const events = ref<string[]>([...WEBHOOK_EVENTS]);
const eventItems = WEBHOOK_EVENTS.map((value) => ({ value, title: capital(WEBHOOK_EVENT_WORDS[value]) }));
const made = ref<{ readonly address: string; readonly secret: string } | null>(null);

async function add(): Promise<void> {
  const answer = await adding.run({ address: address.value.trim(), events: events.value as WebhookEvent[] });
  if (!answer) return;
  made.value = { address: address.value.trim(), secret: answer.value.secret };
  address.value = '';
}
/** What the last attempt came to. */
function lastWords({ lastStatus, lastAt }: WebhookView): string {
  if (lastStatus === null || lastAt === null) return 'nothing sent yet';
  if (lastStatus === 0) return `nobody answered, ${momentWords(lastAt)}`;
  return `answered ${lastStatus}, ${momentWords(lastAt)}`;
}
const aboutOf = (one: WebhookView): string =>
  [
    one.events.length > 0
      ? one.events.map((event) => WEBHOOK_EVENT_WORDS[event]).join(', ')
      : 'told nothing more: it said that it is gone',
    lastWords(one),
    ...(one.waiting > 0 ? [`${countWords(one.waiting, 'message waits', 'messages wait')}`] : []),
    ...(one.failed > 0 ? [`${one.failed} given up`] : []),
  ].join(' · ');
async function test({ id }: WebhookView): Promise<void> {
  if (!(await testing.run(id))) return notices.warn(testing.message.value ?? 'It could not be sent');
  notices.say('A test message is on its way');
  setTimeout(() => void refetch(), 1500);
}
async function remove({ id, address: where }: WebhookView): Promise<void> {
  if (await removing.run(id)) notices.say(`${where} is told nothing more`);
  else notices.warn(removing.message.value ?? 'It could not be removed');
}
</script>

<template>
  <PagePart title="Webhooks">
    <p class="small soft">
      A program of your own can be told of changes as they happen, by a request to its address that is signed
      as Standard Webhooks says. Nothing of people is sent.
    </p>
    <LineCard v-for="one in data" :key="one.id" :title="one.address" :about="aboutOf(one)">
      <div>
        <v-btn variant="text" :aria-label="`Send a test message to ${one.address}`" @click="test(one)"
          >Test</v-btn
        >
        <v-btn variant="text" :aria-label="`Remove ${one.address}`" @click="remove(one)">Remove</v-btn>
      </div>
    </LineCard>
    <div v-if="data?.length" class="row"><TableLink list="webhooks" /></div>
    <form class="new" novalidate @submit.prevent="add">
      <v-text-field
        v-model="address"
        type="url"
        label="Address of the program"
        hint="It begins with https"
        persistent-hint
        :error-messages="adding.errorsOf('address')"
      />
      <CheckList
        v-model="events"
        :items="eventItems"
        legend="What it is told of"
        :errors="adding.errorsOf('events')"
      />
      <p v-if="adding.general(['address', 'events'])" class="small error" role="alert">
        {{ adding.general(['address', 'events']) }}
      </p>
      <v-btn type="submit" variant="outlined" size="large" :loading="adding.busy.value">Add a webhook</v-btn>
    </form>
    <ShownOnce
      v-if="made"
      :secret="made.secret"
      :whom="made.address"
      copied="The secret is copied"
      @done="made = null"
    >
      The secret by which its messages are signed is shown this once: give it to the program now.
    </ShownOnce>
  </PagePart>
</template>

<style scoped>
.new {
  display: grid;
  gap: 8px;
}
.new > .v-btn {
  justify-self: start;
}
.error {
  color: rgb(var(--v-theme-error));
}
</style>
