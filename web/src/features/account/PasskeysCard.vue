<script setup lang="ts">
import type { PasskeyView } from '@karyotome/contract';
import { ref } from 'vue';
import { hasAuthenticator, makePasskey } from '../../api/authenticator.ts';
import { api } from '../../api/resources.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { usePasskeys } from '../../stores/queries.ts';
import { useWrite } from '../../stores/useWrite.ts';
import LineCard from '../../ui/LineCard.vue';
import PagePart from '../../ui/PagePart.vue';
import RefusalAlert from '../../ui/RefusalAlert.vue';

/** What the account can sign in with instead of a password. */
const { data } = usePasskeys();
const notices = useNotices();
const name = ref('');
const password = ref('');
const adding = useWrite(async (called: string, given: string) => {
  const { options } = await api.passkeyOptions({ password: given });
  return api.addPasskey({ name: called, response: await makePasskey(options) });
});
const removing = useWrite(api.removePasskey);

async function add(): Promise<void> {
  if (!(await adding.run(name.value.trim(), password.value))) return;
  notices.say(`${name.value.trim()}: you can sign in with it now`);
  [name.value, password.value] = ['', ''];
}
async function remove(passkey: PasskeyView): Promise<void> {
  if (await removing.run(passkey.id)) notices.say(`${passkey.name}: removed, it lets nobody in now`);
  else notices.warn(removing.message.value ?? 'It could not be removed');
}
</script>

<template>
  <PagePart title="Passkeys">
    <p class="small soft">
      A passkey signs you in with your finger, your face or the device’s PIN, without a password that could
      leak. It stays on the device, or in its keychain.
    </p>
    <LineCard
      v-for="passkey in data"
      :key="passkey.id"
      :title="passkey.name"
      :about="`since ${momentDay(passkey.createdAt)}, ${passkey.usedAt ? `used ${momentDay(passkey.usedAt)}` : 'not used yet'}`"
    >
      <v-btn variant="text" :aria-label="`Remove ${passkey.name}`" @click="remove(passkey)">Remove</v-btn>
    </LineCard>
    <form v-if="hasAuthenticator()" class="stack" novalidate @submit.prevent="add">
      <v-text-field
        v-model="name"
        label="For which device"
        maxlength="80"
        :error-messages="adding.errorsOf('name')"
      />
      <v-text-field
        v-model="password"
        label="Your password, to add it"
        type="password"
        autocomplete="current-password"
        :error-messages="adding.errorsOf('password')"
      />
      <RefusalAlert :text="adding.general(['name', 'password'])" />
      <div class="row">
        <v-btn type="submit" variant="outlined" size="large" :loading="adding.busy.value"
          >Add a passkey</v-btn
        >
      </div>
    </form>
    <p v-else class="small soft">
      This browser makes none here: passkeys need a connection by https, or the server’s own machine.
    </p>
  </PagePart>
</template>
