<script setup lang="ts">
import { TOKEN_SCOPES, type TokenScope, type TokenView } from '@karyotome/contract';
import { TOKEN_SCOPE_WORDS } from '@karyotome/words';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useTokens } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import LineCard from '../../ui/LineCard.vue';
import PagePart from '../../ui/PagePart.vue';
import ShownOnce from '../../ui/ShownOnce.vue';
import TableLink from '../../ui/TableLink.vue';

/** What programs of this person sign in with: scales, sensors, one's own scripts. */
const { data } = useTokens();
const notices = useNotices();
const adding = useWrite(api.addToken);
const revoking = useWrite(api.revokeToken);
const name = ref('');
const scope = ref<TokenScope>('record');
const days = ref(90);
const made = ref<{ readonly name: string; readonly token: string } | null>(null);
const scopes = TOKEN_SCOPES.map((value) => ({ value, title: `May ${TOKEN_SCOPE_WORDS[value]}` }));
const spans = [30, 90, 365].map((value) => ({ value, title: reader().days(value) }));

async function add(): Promise<void> {
  const answer = await adding.run({ name: name.value.trim(), scope: scope.value, days: days.value });
  if (!answer) return;
  made.value = { name: name.value.trim(), token: answer.value.token };
  name.value = '';
}
const aboutToken = ({ scope, expiresAt, usedAt }: TokenView): string =>
  `may ${TOKEN_SCOPE_WORDS[scope]}, good until ${momentDay(expiresAt)}, ${usedAt ? `used ${momentDay(usedAt)}` : 'not used yet'}`;
async function revoke({ id, name: whose }: TokenView): Promise<void> {
  if (await revoking.run(id)) notices.say(`${whose}: revoked, its token lets nobody in now`);
  else notices.warn(revoking.message.value ?? 'It could not be revoked');
}
</script>

<template>
  <PagePart title="Programs">
    <p class="small soft">
      A scale, a sensor or a script of your own signs in with a token instead of your password. It acts in
      your name, in this collection, and can do no more than you may. The
      <a href="/api/docs">description of the interface for programs</a> says what there is.
    </p>
    <LineCard v-for="token in data" :key="token.id" :title="token.name" :about="aboutToken(token)">
      <v-btn variant="text" :aria-label="`Revoke ${token.name}`" @click="revoke(token)">Revoke</v-btn>
    </LineCard>
    <div v-if="data?.length" class="row"><TableLink list="tokens" /></div>
    <form class="new" novalidate @submit.prevent="add">
      <v-text-field
        v-model="name"
        label="For which program"
        maxlength="80"
        :error-messages="adding.errorsOf('name')"
      />
      <v-select
        v-model="scope"
        label="What it may do"
        :items="scopes"
        :error-messages="adding.errorsOf('scope')"
      />
      <v-select v-model="days" label="Good for" :items="spans" :error-messages="adding.errorsOf('days')" />
      <v-btn type="submit" variant="outlined" size="large" :loading="adding.busy.value">Make a token</v-btn>
    </form>
    <ShownOnce
      v-if="made"
      :secret="made.token"
      :whom="made.name"
      copied="The token is copied"
      @done="made = null"
    >
      It is shown this once: give it to the program now, as
      <code class="small">Authorization: Bearer</code> and this.
    </ShownOnce>
  </PagePart>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: start;
  gap: 8px;
}
@media (width < 500px) {
  .new {
    grid-template-columns: 1fr;
  }
}
</style>
